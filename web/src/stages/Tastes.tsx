import { useState } from 'react'
import type { Schemas } from '../api/client'
import { useLists } from '../api/lists'
import type { Payload } from '../api/types'
import { Threads } from '../figures/Threads'
import { useSay, Words } from '../shared/units'
import { Button } from '../ui/Button'
import { Popover } from '../ui/Popover'
import { STAGES } from './registry'
import { useBench } from './useBench'

type Thread = Schemas['ThreadOut']

/** What tastes of what, along the way: every word opens its arithmetic, and what a tongue may say of it. */
export function Tastes() {
  const { batch } = useBench()
  const say = useSay()
  return (
    <Threads
      stages={STAGES.map(({ stage }) => stage)}
      stretches={batch.ribbon}
      threads={batch.threads.map((thread) => ({
        ...thread,
        key: thread.of,
        label: thread.of,
        ink: thread.of === 'salt' ? 'var(--salt)' : 'var(--ink)',
        told: `${thread.of} ${say(thread.word)}, ${say(thread.figure)}${thread.end_word ? `; at the end ${say(thread.end_word)}` : ''}`,
        words: <TasteWords thread={thread} />,
      }))}
    />
  )
}

/** The word for one taste, with its figure; tapped it says where that comes from, and takes a verdict. */
function TasteWords({ thread }: { thread: Thread }) {
  const { batch, busy, onRecord } = useBench()
  const { palate, tongue } = useLists()
  const [open, setOpen] = useState(false)
  const words = thread.of === 'salt' ? tongue : (palate.find(({ key }) => key === thread.of)?.words ?? [])
  const looks = `${thread.stands === 'right' ? 'text-done' : ''} ${thread.tasted ? '' : 'underline decoration-dotted decoration-2 underline-offset-4'}`
  return (
    <Popover
      open={open}
      onOpen={setOpen}
      label={thread.of}
      className="min-h-12 min-w-0 rounded-lg text-left leading-tight"
      trigger={
        <>
          <span className="sr-only">{thread.of}: </span>
          <span className={`block text-[1.15rem] font-bold sm:text-[1.4rem] ${looks}`}>
            <Words of={thread.word} />
          </span>
          <span className="block text-[0.95rem] text-quiet">
            <span data-of={thread.of === 'salt' ? 'salt now' : thread.of}>
              <Words of={thread.figure} />
            </span>
            {thread.end_word && (
              // There is room for it beside the thread alone; it is in what opens, too.
              <span className="max-sm:hidden">
                , then <Words of={thread.end_word} />
              </span>
            )}
          </span>
        </>
      }
    >
      <div className="grid gap-3">
        <p>
          <Words of={thread.how} />
        </p>
        {thread.end_word && (
          <p className="font-medium">
            At the end: <Words of={thread.end_word} />
          </p>
        )}
        {!batch.finished && words.length > 0 && (
          <div role="group" aria-label="How is it?" className="flex flex-wrap gap-2">
            {words.map(({ key, label }) => (
              <Button
                key={key}
                className="flex-auto"
                disabled={busy}
                onClick={() => {
                  setOpen(false)
                  onRecord({ kind: 'tested', of: thread.of, verdict: key, twice: false } as Payload)
                }}
              >
                {label}
              </Button>
            ))}
          </div>
        )}
        {!thread.tasted && words.length > 0 && <p className="text-quiet">Nobody has tasted it since: this is by what went in.</p>}
      </div>
    </Popover>
  )
}
