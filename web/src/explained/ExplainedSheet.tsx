import { useQuery } from '@tanstack/react-query'
import { useEffect, useRef, useState } from 'react'
import { answer, client, type Problem, type Schemas } from '../api/client'
import { useSay, Words } from '../shared/units'
import { Sheet } from '../ui/Sheet'
import { TextField } from '../ui/TextField'
import { Drawing } from './Drawing'
import { Letters } from './Letters'

type Explained = Schemas['ExplainedOut']

/** What the words mean: the one that was asked about, and all of them to find another. */
export default function ExplainedSheet({ of, onClose }: { of: string; onClose: () => void }) {
  const say = useSay()
  const all = useQuery<Explained[], Problem>({ queryKey: ['explained'], queryFn: ({ signal }) => answer(client.GET('/api/v1/explained', { signal })), staleTime: Infinity })
  const [key, setKey] = useState(of)
  const [sought, setSought] = useState('')
  const one = all.data?.find((each) => each.key === key)
  // Whoever taps another word far down reads on from the top.
  const shown = useRef<HTMLElement>(null)
  useEffect(() => {
    shown.current?.scrollIntoView({ block: 'nearest' })
  }, [key])
  const words = sought.trim().toLowerCase()
  const found = all.data?.filter((each) => `${say(each.title)} ${say(each.said)}`.toLowerCase().includes(words)) ?? []
  return (
    <Sheet open onClose={onClose} title={one ? say(one.title) : 'What does it mean?'}>
      {all.isError && (
        <p role="alert" className="font-medium text-heat">
          {all.error.message}
        </p>
      )}
      {one && (
        <article ref={shown} className="mb-5 grid gap-3">
          <Drawing of={one.drawing} />
          <p className="text-lg">
            <Words of={one.said} />
          </p>
        </article>
      )}
      <TextField label={one ? 'Another word' : 'A word'} placeholder="roux, salt, how thick" value={sought} onChange={setSought} autoComplete="off" />
      {all.isSuccess && found.length === 0 && <p className="mt-2 text-quiet">Nothing is explained under that word.</p>}
      <ul aria-label="Explained" className="mt-2 flex flex-wrap gap-x-5">
        {found.map((each) => (
          <li key={each.key}>
            <button type="button" aria-current={each.key === key ? 'true' : undefined} className="min-h-12 min-w-12 text-left font-semibold underline decoration-dotted underline-offset-4" onClick={() => setKey(each.key)}>
              {say(each.title)}
            </button>
          </li>
        ))}
      </ul>
      <Letters />
    </Sheet>
  )
}
