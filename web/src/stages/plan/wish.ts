import type { Batch, Wanted } from '../../api/hooks'

/** What is wanted, said again with one thing changed. */
export function wantedAgain(wanted: NonNullable<Batch['wanted']>, change: Partial<Wanted>): Wanted {
  const { portions, portion } = wanted
  const amount = wanted.by_people
    ? { people: wanted.people, over: wanted.over }
    : portions !== null && portion !== null
      ? { portions, portion_ml: portion.value }
      : { volume_ml: wanted.amount.value }
  return {
    kind: 'wanted',
    ...amount,
    ...(wanted.minutes !== null && { minutes: wanted.minutes }),
    avoid: wanted.avoid,
    body: wanted.body,
    salt_percent: wanted.salt_percent,
    ceiling_percent: wanted.ceiling_percent,
    fat_g_per_100_ml: wanted.fat_g_per_100_ml,
    ...change,
  }
}
