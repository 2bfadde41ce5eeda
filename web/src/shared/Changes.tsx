import { useState } from 'react'
import type { Schemas } from '../api/client'
import { Words } from './units'

/** All that something changes before it goes in, what hurts first and with a mark of its own; each unfolds its sum. */
export function Changes({ changes }: { changes: readonly Schemas['ChangeOut'][] }) {
  const [open, setOpen] = useState<number>()
  const how = open === undefined ? null : changes[open]?.how
  return (
    <>
      <ul className="flex flex-wrap gap-x-4 gap-y-0.5 leading-snug">
        {changes.map(({ said, hurts, how: sum }, i) => (
          <li key={i} className={hurts ? 'font-semibold text-heat' : 'text-quiet'}>
            {hurts && <span aria-hidden="true">▲ </span>}
            {sum ? (
              <button type="button" className="min-h-8 text-left underline decoration-line decoration-2 underline-offset-4" aria-expanded={open === i} onClick={() => setOpen(open === i ? undefined : i)}>
                <Words of={said} />
                <span className="sr-only">, how it comes about</span>
              </button>
            ) : (
              <Words of={said} />
            )}
          </li>
        ))}
      </ul>
      {how && (
        <p className="mt-1 border-l-2 border-line pl-3 text-[0.95rem] leading-snug text-quiet">
          <Words of={how} />
        </p>
      )}
    </>
  )
}
