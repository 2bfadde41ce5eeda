import type { Stage } from '../api/hooks'

/** The stages of the work, in order, by the names the ribbon gives them. */
export const STAGES: readonly { stage: Stage; label: string }[] = [
  { stage: 'strain', label: 'Strain' },
  { stage: 'skim', label: 'Skim' },
  { stage: 'reduce', label: 'Reduce' },
  { stage: 'thicken', label: 'Thicken' },
  { stage: 'season', label: 'Season' },
  { stage: 'serve', label: 'Serve' },
]
