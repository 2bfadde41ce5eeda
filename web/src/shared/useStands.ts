import { useSyncExternalStore } from 'react'
import { ownerOf, useSession } from '../api/session'
import { useHoursAhead } from '../api/batches'
import { useLists } from '../api/lists'
import type { Batch } from '../api/types'
import type { Schemas } from '../api/client'
import { belongs, onOutbox, waiting, type Waiting } from '../api/outbox'
import { comesTo, lookAfter, lookedUp, standsAt, type ReadBy } from './course'
import { useNow } from './useNow'

/** A reading that the server has not taken yet, as far as the pot's own table tells it. */
export interface KeptReading {
  id: string
  at: number
  ml: number
  depthMm: number
  label: string
}

export type Measured = NonNullable<Extract<Schemas['EventIn']['payload'], { kind: 'read' }>['measured']>

/** Where the pot stands by all that is known here: the server's course, and what was read since and is still kept here. */
export interface Stands {
  /** Null where nothing boils. */
  now: ReturnType<typeof standsAt>
  kept: readonly KeptReading[]
  /** How many entries of this pot are kept here. */
  waiting: number
  /** When it comes to its mark by the last kept reading, ms; null where there is none, or it is there already. */
  arrives: number | null
  /** When to look after the last kept reading, ms; null where there is none, or it is there already. */
  look: number | null
  /** The last kept reading is at the mark, or past it. */
  there: boolean
  /** Something was done that only the server can say what follows from. */
  pending: boolean
}

export function useStands(batch: Batch): Stands {
  const now = useNow()
  const { kinds } = useLists()
  const { data: session } = useSession()
  // What somebody else did here waits until they are back, and is not this cook's.
  const mine = (one: Waiting) => session?.signed_in === true && belongs(one, ownerOf(session))
  const list = useSyncExternalStore(onOutbox, waiting).filter((one) => one.batchId === batch.id && one.state === 'waits' && mine(one))
  const kept = useKeptReadings(batch, list)
  const { act, curve } = batch
  const alone = useHoursAhead(batch)
  const done = list.filter(({ payload }) => !kinds.some(({ kind, beside }) => beside && kind === payload.kind)).at(-1)
  if (act.doing !== 'boil') return { now: null, kept, waiting: list.length, arrives: null, look: null, there: false, pending: done !== undefined }
  const drawn = curve.course.at(-1)?.at ?? ''
  const course = [...curve.course, ...(alone?.ahead ?? []).filter((point) => Date.parse(point.at) > Date.parse(drawn))]
  // It counts while nothing else was done since.
  const last = kept.find(({ id }) => id === done?.id)
  const then = last ? comesTo(course, last.ml) : null
  // So far behind its course, or ahead of it, it was found.
  const late = last && then !== null ? last.at - then : 0
  const mark = curve.stop && comesTo(course, curve.stop.value)
  const there = last !== undefined && curve.stop !== null && last.ml <= curve.stop.value
  return {
    now: standsAt(course, now - late),
    kept,
    waiting: list.length,
    arrives: last && mark !== null && !there ? mark + late : null,
    look: last && !there ? lookAfter(curve, alone?.looks ?? [], last.ml, last.at) : null,
    there,
    pending: done !== undefined && !last,
  }
}

function useKeptReadings({ pot }: Batch, list: readonly Waiting[]): KeptReading[] {
  const { ways_to_measure: ways } = useLists()
  return list.flatMap((one) => {
    if (one.payload.kind !== 'read') return []
    const { measured } = one.payload
    // A share that is left is the server's to understand.
    if (!measured) return []
    const unit = ways.find(({ key }) => key === measured.method)?.unit
    const found = unit && looked(measured, unit, pot.table)
    return found ? [{ ...found, id: one.id, at: Date.parse(one.at) }] : []
  })
}

/** A reading that cannot be, by what was known before it; null where it can, or where only the server understands it. */
export function cannotBe(batch: Batch, measured: Measured, unit: Record<string, string>, at: number): 'more' | 'less' | null {
  const { course, learned_from, most_ml_min, no_chance_ml: slack } = batch.curve
  const before = course[0]
  const found = looked(measured, unit, batch.pot.table)
  if (batch.act.doing !== 'boil' || !before || !found) return null
  const lost = before.liquid.value - found.ml
  const minutes = (at - Date.parse(before.at)) / 60_000
  // How long the start had stood before it was told nobody knows.
  return lost < -slack ? 'more' : learned_from > 0 && lost - slack > most_ml_min * minutes ? 'less' : null
}

/** What a plain figure shows, hot or on a scale. Anything else is the server's to understand. */
function looked({ method, value, hot }: Measured, unit: Record<string, string>, table: Batch['pot']['table']): Pick<KeptReading, 'ml' | 'depthMm' | 'label'> | null {
  if (method === 'eye' || (!hot && method !== 'scale')) return null
  const typed = String(value).trim()
  for (const system of ['us', 'metric'] as const) {
    const end = `\u00a0${unit[system] ?? ''}`
    // A bare number is metric: where it was not, the page has said so.
    const figure = typed.endsWith(end) ? typed.slice(0, -end.length) : system === 'metric' ? typed : ''
    const found = figure === '' || Number.isNaN(Number(figure)) ? null : lookedUp(table, system, method as ReadBy, Number(figure))
    if (found) return { ...found, label: `${figure}${end}` }
  }
  return null
}
