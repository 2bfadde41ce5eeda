import { use } from 'react'
import { Units } from './units'

/** The skewer at its true size, to print. `path` is its address without the ending. */
export function SkewerLink({ path, of }: { path: string; of?: string }) {
  const units = use(Units)
  return (
    <a href={`${path}.pdf?units=${units}`} target="_blank" rel="noreferrer" className="inline-flex min-h-12 items-center px-2 font-semibold underline">
      <span>
        Print its skewer{of && <span className="sr-only"> {of}</span>}
      </span>
    </a>
  )
}
