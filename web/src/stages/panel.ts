import type { Problem } from '../api/client'
import type { Batch, Payload, Stage } from '../api/hooks'

/** What every stage of the bench is given. */
export interface PanelProps {
  batch: Batch
  /** Record what happened, in order; the page then follows to what comes next. */
  onRecord: (payload: Payload | Payload[], after?: () => void) => void
  onOpen: (view: Stage | 'plan' | 'correct') => void
  problem: Problem | null
}
