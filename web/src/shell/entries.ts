import type { Schemas } from '../api/client'
import type { Payload } from '../api/types'

/** What may be mended of an entry: the figures and words in it, by what they are called. */
const LABELS: Record<string, string> = {
  value: 'Reading', salt_g: 'Weight of the salt', dry_g: 'Weight of the flour or starch', amount: 'How much', mass_g: 'Weight',
  volume_ml: 'Volume', fat_ml: 'Fat taken off', ice_g: 'Ice', dissolved_ml: 'Liquid it was dissolved in', celsius: 'Temperature',
  surroundings_c: 'It cools at', percent: 'Salt by the meter', yield_ml: 'What came of it', text: 'Note', portions: 'People',
  portion_ml: 'A helping', salt_percent: 'Salt', ceiling_percent: 'At most', oven_c: 'Oven', share: 'Share of full heat',
}

export interface Figure {
  path: string[]
  label: string
  value: string
}

/** The figures and words of an entry, wherever they stand in it. */
export function figures(payload: object, path: string[] = []): Figure[] {
  return Object.entries(payload).flatMap(([key, value]: [string, unknown]) => {
    const here = [...path, key]
    if (value !== null && typeof value === 'object' && !Array.isArray(value)) return figures(value, here)
    const label = LABELS[key]
    return label && (typeof value === 'string' || typeof value === 'number') ? [{ path: here, label, value: String(value) }] : []
  })
}

/** The entry with one figure changed, as it was typed. */
export function withFigure<T extends object>(payload: T, [key, ...rest]: string[], value: string): T {
  if (key === undefined) return payload
  const inner = (payload as Record<string, unknown>)[key]
  return { ...payload, [key]: rest.length === 0 ? value : withFigure(inner as object, rest, value) }
}

/** What an entry is called, with its figures, before the server has put it into words. */
export function described(payload: Payload, kinds: readonly Schemas['KindOut'][]): string {
  const called = kinds.find(({ kind }) => kind === payload.kind)?.called ?? payload.kind
  return [called, ...figures(payload).map(({ value }) => value)].join(' ').slice(0, 80)
}
