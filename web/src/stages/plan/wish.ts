import type { Batch, Wanted } from '../../api/hooks'

/** What is wanted, said again with one thing changed. */
export function wantedAgain(wanted: NonNullable<Batch['wanted']>, change: Partial<Wanted>): Wanted {
  const amount =
    wanted.portions !== null && wanted.portion !== null
      ? { portions: wanted.portions, portion_ml: wanted.portion.value }
      : { volume_ml: wanted.amount.value }
  return {
    kind: 'wanted',
    ...amount,
    body: wanted.body,
    salt_percent: wanted.salt_percent,
    ceiling_percent: wanted.ceiling_percent,
    fat_g_per_100_ml: wanted.fat_g_per_100_ml,
    ...change,
  }
}
