import type { Batch, Said, Wanted } from '../../api/types'

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
    ...(wanted.minutes !== null && { minutes: wanted.clock ?? wanted.minutes }),
    avoid: wanted.avoid,
    body: wanted.body,
    salt_percent: wanted.salt_percent,
    ceiling_percent: wanted.ceiling_percent,
    fat_g_per_100_ml: wanted.fat_g_per_100_ml,
    ...change,
  }
}

/** A wish as it is being said: what stands in its fields. */
export interface Wish {
  by: 'people' | 'amount'
  people: string
  over: string
  amount: string
  minutes: string
  body: string
  salt: string
  ceiling: string
  fat: number
  avoid: Wanted['avoid']
}

/** What was wished for, or what would be proposed, as fields. */
export function wishOf(batch: Batch, say: (of: Said) => string): Wish {
  const wanted = batch.wanted ?? batch.suggested
  return {
    by: wanted.by_people ? 'people' : 'amount',
    people: String(wanted.people),
    over: wanted.over,
    amount: say(wanted.said),
    minutes: wanted.clock ?? (wanted.minutes === null ? '' : `${wanted.minutes} min`),
    body: String(wanted.body),
    salt: `${wanted.salt_percent.toFixed(2)} %`,
    ceiling: `${wanted.ceiling_percent.toFixed(2)} %`,
    fat: wanted.fat_g_per_100_ml,
    avoid: wanted.avoid,
  }
}

/** The fields as a wish to ask with, and to record. */
export function wantedOf(wish: Wish): Wanted {
  return {
    kind: 'wanted',
    ...(wish.by === 'people' ? { amount: `${wish.people} people`, over: wish.over as Wanted['over'] } : { amount: wish.amount }),
    ...(wish.minutes.trim() && { minutes: wish.minutes }),
    body: Number(wish.body),
    salt_percent: wish.salt,
    ceiling_percent: wish.ceiling,
    fat_g_per_100_ml: wish.fat,
    avoid: wish.avoid,
  }
}
