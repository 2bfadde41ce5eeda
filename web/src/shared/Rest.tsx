import type { Problem } from '../api/client'

interface Props {
  problem: Problem | null | undefined
  /** The fields that are in sight, each with its own sentence beside it. */
  beside: readonly string[]
  className?: string
}

/** What is wrong, and stands beside no field in sight: it is shown all the same. */
export function Rest({ problem, beside, className = 'text-heat' }: Props) {
  const sentence = problem?.rest(...beside)
  return sentence ? (
    <p role="alert" className={`font-medium ${className}`}>
      {sentence}
    </p>
  ) : null
}
