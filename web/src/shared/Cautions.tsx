import type { Said } from '../api/types'
import { Words } from './units'

/** What to mind, with local rules before ours. */
export function Cautions({ cautions }: { cautions: readonly Said[] }) {
  if (cautions.length === 0) return null
  return (
    <ul className="grid gap-1 border-l-4 border-heat pl-4">
      {cautions.map((caution, i) => (
        <li key={i}>
          <Words of={caution} />
        </li>
      ))}
    </ul>
  )
}
