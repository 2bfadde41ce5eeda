import { createContext, use } from 'react'
import type { Problem } from '../api/client'
import type { Batch, Payload, Said, Stage, Wanted } from '../api/types'

export type View = Stage | 'plan' | 'correct' | 'sheet' | 'pass' | 'story'

/** What every part of the bench shares: the batch, and what can be done with it. */
export interface BenchParts {
  batch: Batch
  view: View
  /** An entry is on its way. */
  busy: boolean
  problem: Problem | null
  /** Record what happened, in order; the page then follows to what comes next. */
  onRecord: (payload: Payload | Payload[], after?: () => void) => void
  onOpen: (view: View) => void
  /** The way in hand on the plan. */
  proposal: Proposal | null
  onPropose: (proposal: Proposal | null) => void
}

/** A way that may be taken: what the bar says of it, and what answers it. */
export interface Proposal {
  said: Said
  /** The cook has changed the wish, or picked another way than the first. */
  changed: boolean
  /** The wish, where it is not kept yet. */
  wish: Wanted | null
  /** What taking it records; null where it cannot be taken. */
  take: Payload[] | null
  /** Takes up the next one, where there is another. */
  next: (() => void) | null
  /** The wish cannot be met: what is wrong stands beside its word. */
  wrong: boolean
}

export const BenchContext = createContext<BenchParts | null>(null)

export function useBench(): BenchParts {
  const parts = use(BenchContext)
  if (parts === null) throw new Error('There is no bench around this.')
  return parts
}
