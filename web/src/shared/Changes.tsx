import type { Schemas } from '../api/client'
import { Words } from './units'

/** All that something changes before it goes in, what hurts first and with a mark of its own. */
export function Changes({ changes }: { changes: readonly Schemas['ChangeOut'][] }) {
  return (
    <ul className="flex flex-wrap gap-x-4 gap-y-0.5 leading-snug">
      {changes.map(({ said, hurts }, i) => (
        <li key={i} className={hurts ? 'font-semibold text-heat' : 'text-quiet'}>
          {hurts && <span aria-hidden="true">▲ </span>}
          <Words of={said} />
        </li>
      ))}
    </ul>
  )
}
