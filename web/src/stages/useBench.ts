import { createContext, use } from 'react'
import type { Problem } from '../api/client'
import type { Batch, Payload, Stage, Wanted } from '../api/hooks'

export type View = Stage | 'plan' | 'correct'

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
  /** A wish that is changed on the page and not kept yet: nothing is proposed for the one before it. */
  draft: Wanted | null
  onDraft: (draft: Wanted | null) => void
}

export const BenchContext = createContext<BenchParts | null>(null)

export function useBench(): BenchParts {
  const parts = use(BenchContext)
  if (parts === null) throw new Error('There is no bench around this.')
  return parts
}
