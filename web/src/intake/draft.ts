import type { Batch, Kitchen, Line, StartedIn } from '../api/types'
import type { Schemas } from '../api/client'

/** How a braise was cooked and strained, as it was tapped and typed. */
export type Cooked = Omit<Schemas['Braise'], 'lines' | 'hours' | 'oven_c'> & { hours: string | null; oven: string | null }

/** What has been said so far of a strained liquid, as it was typed and tapped. */
export interface Draft {
  name: string
  panId: string
  burnerId: string
  /** The sentence it began with. */
  said: string
  method: 'jug' | 'dip' | 'scale' | 'eye'
  value: string
  hot: boolean
  fatBy: 'mm' | 'ml'
  fat: string
  /** Where its layer was seen; nobody has said while it is empty. */
  fatIn: '' | 'jug' | 'pan'
  saltBy: 'unsaid' | 'taste' | 'meter' | 'stock' | 'list'
  verdict: 'flat' | 'nearly' | 'right' | 'salty' | 'too_salty'
  percent: string
  stock: 'salted' | 'reduced_salt' | 'low_salt' | 'unsalted'
  character: NonNullable<StartedIn['liquid']['character']>
  /** What of another batch it is. */
  kept?: NonNullable<StartedIn['liquid']['kept']>
  /** Meat or vegetables still in the pan, by weight. */
  solids: string
  lines: Line[]
  cooked: Cooked
  /** What the sentence says, as long as it says it. */
  heard: Partial<Facts>
  /** What the cook chose by hand: everything else is only assumed. */
  chosen: (keyof Draft | keyof Cooked)[]
}

/** What a sentence may say of a strained liquid. */
type Facts = Pick<Draft, 'method' | 'value' | 'hot' | 'fatBy' | 'fat' | 'fatIn' | 'saltBy' | 'verdict' | 'percent' | 'stock' | 'character'>

/** A draft belongs to the person who made it; what an earlier version kept goes to whoever comes first. */
const KEY = 'spissus-start'
const keyOf = (person: string) => `${KEY}:${person}`

export const fresh: Draft = {
  name: '', panId: '', burnerId: '', said: '', method: 'jug', value: '', hot: true, fatBy: 'mm', fat: '', fatIn: '',
  saltBy: 'unsaid', verdict: 'nearly', percent: '', stock: 'salted', character: 'gelatin_rich', solids: '', lines: [],
  cooked: {
    cover: 'tight', heat: 'oven', oven: null, hours: null, level: 'nearly', pieces: 'large', overnight: false,
    trimmed: false, strain: 'fine',
  },
  heard: {}, chosen: [],
}

/** The draft of an interrupted start, if there is one. */
export function savedDraft(person: string): Draft {
  try {
    const kept = JSON.parse(localStorage.getItem(keyOf(person)) ?? localStorage.getItem(KEY) ?? '{}') as Partial<Draft>
    // A line that an earlier version kept knows nothing of doubts.
    const lines = (kept.lines ?? []).map((line) => ({ ...line, doubt: line.doubt ?? null, choices: line.choices ?? [] }))
    return { ...fresh, ...kept, lines, cooked: { ...fresh.cooked, ...kept.cooked } }
  } catch {
    return fresh
  }
}

export function saveDraft(person: string, draft: Draft | null): void {
  if (draft) localStorage.setItem(keyOf(person), JSON.stringify(draft))
  else localStorage.removeItem(keyOf(person))
  localStorage.removeItem(KEY)
}

/** The draft with what a sentence says of it: what it no longer says goes, what was set by hand stays. */
export function withSentence(draft: Draft, read: Schemas['SentenceOut'] | null): Draft {
  const heard = read ? factsOf(read) : {}
  const before = draft.heard
  const gone = Object.keys(before).filter((key) => !(key in heard) && draft[key as keyof Facts] === before[key as keyof Facts])
  const told = Object.entries(heard).filter(([key, fact]) => before[key as keyof Facts] !== fact)
  return {
    ...draft,
    ...Object.fromEntries(gone.map((key) => [key, fresh[key as keyof Facts]])),
    ...Object.fromEntries(told),
    heard,
  }
}

/** The draft with what the cook changed in it: from then on that was chosen. */
export function changed(draft: Draft, part: Partial<Draft>): Draft {
  const cooked = part.cooked ? (Object.keys(part.cooked) as (keyof Cooked)[]).filter((key) => part.cooked?.[key] !== draft.cooked[key]) : []
  const chosen = new Set([...draft.chosen, ...(Object.keys(part) as (keyof Draft)[]), ...cooked])
  return { ...draft, ...part, chosen: [...chosen] }
}

/** Whether nobody has said this yet, by hand or in the sentence. */
export const assumed = (draft: Draft, key: keyof Draft | keyof Cooked): boolean => !draft.chosen.includes(key) && !(key in draft.heard)

function factsOf(read: Schemas['SentenceOut']): Partial<Facts> {
  return {
    ...(read.method !== null && read.value !== null && { method: read.method, value: read.value }),
    ...(read.hot !== null && { hot: read.hot }),
    ...(read.fat_mm !== null && { fatBy: 'mm' as const, fat: read.fat_mm }),
    ...(read.fat_in !== null && { fatIn: read.fat_in }),
    ...(read.fat_ml !== null && { fatBy: 'ml' as const, fat: read.fat_ml }),
    ...(read.stock !== null && { saltBy: 'stock' as const, stock: read.stock }),
    ...(read.verdict !== null && { saltBy: 'taste' as const, verdict: read.verdict }),
    ...(read.percent !== null && { saltBy: 'meter' as const, percent: read.percent }),
    ...(read.character !== null && { character: read.character }),
  }
}

const unit = { jug: 'ml', eye: 'ml', dip: 'mm', scale: 'g' }

/** The start of a batch as a draft, to be corrected. */
export function draftOf(batch: Batch, kitchen: Kitchen): Draft {
  const { pan, burner, liquid, lines } = batch.start
  const { measured, salt, braise } = liquid
  return {
    ...fresh,
    name: batch.name,
    panId: kitchen.pans.find((p) => p.name === pan)?.id ?? '',
    burnerId: kitchen.burners.find((b) => b.name === burner)?.id ?? '',
    ...(measured && { method: measured.method, value: `${measured.value} ${unit[measured.method]}`, hot: measured.hot }),
    fatBy: liquid.fat_ml ? 'ml' : 'mm',
    fat: liquid.fat_ml ? `${liquid.fat_ml} ml` : liquid.fat_mm ? `${liquid.fat_mm} mm` : '',
    fatIn: liquid.fat_in ?? '',
    saltBy: salt.by,
    ...(salt.by === 'taste' && { verdict: salt.verdict }),
    ...(salt.by === 'meter' && { percent: `${salt.percent} %` }),
    ...(salt.by === 'stock' && { stock: salt.stock }),
    character: liquid.character,
    ...(liquid.kept && { kept: liquid.kept }),
    solids: Number(liquid.solids_g) > 0 ? `${liquid.solids_g} g` : '',
    lines,
    ...(braise && { cooked: cookedOf(braise) }),
    // What was recorded was said.
    chosen: Object.keys({ ...fresh, ...fresh.cooked }) as Draft['chosen'],
  }
}

/** A dish cooked again: what goes into it is as it was; what is in the pot this time is measured anew. */
export function draftAgain(batch: Batch, kitchen: Kitchen): Draft {
  const { name, panId, burnerId, character, lines, cooked } = draftOf(batch, kitchen)
  return { ...fresh, name, panId, burnerId, character, lines, cooked }
}

/** A house dish, for as many as it was asked for, in the pan and on the burner that were chosen for it. */
export function draftOfDish({ name, character, lines, braise }: Schemas['BeginsOut'], panId: string | null, burnerId: string | null): Draft {
  const place = { ...(panId && { panId }), ...(burnerId && { burnerId }) }
  return { ...fresh, name, character, lines, ...(braise && { cooked: cookedOf(braise) }), ...place, chosen: Object.keys(place) as Draft['chosen'] }
}

function cookedOf({ lines: _, hours, oven_c, ...rest }: Schemas['Braise']): Cooked {
  return { ...rest, hours: `${hours} h`, oven: `${oven_c} °C` }
}

/** Whether a line says what went in and how much. */
export const counts = ({ line }: Line): boolean =>
  line.use !== 'left_out' && Boolean(line.ingredient ?? line.own) && (line.mass_g ?? line.volume_ml ?? null) !== null

/** What is still to be said before the liquid is known: how much, or how salty. */
export function missing(draft: Draft): 'amount' | 'salt' | null {
  const listed = draft.lines.some(counts)
  if (!draft.value.trim() && !listed) return 'amount'
  if (draft.saltBy === 'meter') return draft.percent.trim() ? null : 'salt'
  if (draft.saltBy === 'unsaid' || draft.saltBy === 'list') return listed ? null : 'salt'
  return null
}

function saltOf(draft: Draft): StartedIn['liquid']['salt'] {
  switch (draft.saltBy) {
    case 'taste':
      return { by: 'taste', verdict: draft.verdict }
    case 'meter':
      return { by: 'meter', percent: draft.percent }
    case 'stock':
      return { by: 'stock', stock: draft.stock }
    default:
      return { by: 'list' }
  }
}

/** The draft as the server takes it; null while something it needs is missing. */
export function startOf(draft: Draft): StartedIn | null {
  if (!draft.panId || !draft.burnerId || missing(draft)) return null
  const fat = draft.fat.trim()
  const { hours, oven, ...cooked } = draft.cooked
  return {
    kind: 'started',
    pan_id: draft.panId,
    burner_id: draft.burnerId,
    liquid: {
      ...(draft.value.trim() && { measured: { method: draft.method, value: draft.value, hot: draft.hot } }),
      ...(fat && (draft.fatBy === 'mm' ? { fat_mm: fat, ...(draft.fatIn && { fat_in: draft.fatIn }) } : { fat_ml: fat })),
      salt: saltOf(draft),
      character: draft.character,
      ...(draft.kept && { kept: { batch: draft.kept.batch, jar: draft.kept.jar } }),
      solids_g: draft.solids.trim() || 0,
      ...(draft.lines.length > 0 && {
        // What nobody said is left to the server.
        braise: { ...cooked, ...(hours !== null && { hours }), ...(oven !== null && { oven_c: oven }), lines: draft.lines.map(({ line }) => line) } as Schemas['Braise'],
      }),
    },
  }
}

/** Places of the lines that are in doubt. */
export const unsureLines = (draft: Draft) => draft.lines.flatMap((line, at) => (line.doubt === null ? [] : [at]))

/** The draft while its salt is still unsaid, so that the pot can fill before the question is answered. */
export function previewOf(draft: Draft): StartedIn | null {
  return startOf(missing(draft) === 'salt' ? { ...draft, saltBy: 'taste', verdict: 'nearly' } : draft)
}
