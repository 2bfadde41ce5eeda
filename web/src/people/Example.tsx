import { useQuery } from '@tanstack/react-query'
import { useEffect, useState } from 'react'
import { answer, client, type Problem, type Schemas } from '../api/client'
import { Ribbon } from '../figures/Ribbon'
import { SmallPot } from '../figures/SmallPot'
import { useSay, Words } from '../shared/units'
import { STAGES } from '../stages/registry'
import { Button } from '../ui/Button'

/** How long a step is shown, ms: six of them take half a minute. */
const STEP_MS = 5000

const SEEN = 'spissus-example-seen'

const still = () => matchMedia('(prefers-reduced-motion: reduce)').matches

/** Once it was seen it does not begin by itself again. */
function seenBefore(): boolean {
  try {
    return localStorage.getItem(SEEN) !== null
  } catch {
    return true
  }
}

function seen() {
  try {
    localStorage.setItem(SEEN, '1')
  } catch {
    // It plays once more, then.
  }
}

/** An example sauce from the strainer to the plate. It plays itself at the first visit, until somebody begins their own. */
export default function Example({ quiet }: { quiet: boolean }) {
  const say = useSay()
  const example = useQuery<Schemas['ExampleOut'], Problem>({ queryKey: ['example'], queryFn: ({ signal }) => answer(client.GET('/api/v1/example', { signal })), staleTime: Infinity })
  const steps = example.data?.steps ?? []
  // Which step is shown; none while it rests.
  const [at, setAt] = useState<number | null>(() => (seenBefore() || still() ? null : 0))
  const playing = at !== null && !quiet
  const last = at === steps.length - 1
  useEffect(() => {
    if (!playing || steps.length === 0 || still()) return
    const timer = setTimeout(() => {
      if (last) {
        seen()
        setAt(null)
      } else setAt(at + 1)
    }, STEP_MS)
    return () => clearTimeout(timer)
  }, [at, last, playing, steps.length])
  if (!example.data) return null
  const { pan, ribbon } = example.data
  const shown = playing ? at : steps.length - 1
  const step = steps[shown]
  const stretches = ribbon.map((stretch, i) => ({
    ...stretch,
    planned: i > shown,
    volume: playing && i === shown ? say(stretch.liquid) : '',
    salt: playing && i === shown ? `${stretch.salt_percent.toFixed(2)} %` : '',
    fat: i <= shown && stretch.fat ? 'fat' : null,
    vapour: i <= shown && stretch.vapour ? 'steam' : null,
    added: i <= shown && stretch.added ? 'roux' : null,
  }))
  const stop = () => {
    seen()
    setAt(null)
  }
  return (
    <section aria-label="An example sauce">
      <div aria-hidden="true" className="pointer-events-none" inert>
        <Ribbon stages={STAGES} stretches={stretches} next={null} open={null} onOpen={() => undefined} clock="" ahead="" />
      </div>
      <div className="mt-2 flex min-h-32 flex-wrap items-center gap-x-5 gap-y-2">
        {playing && step ? (
          <>
            <SmallPot pan={pan} depthMm={step.depth_mm} fatMm={step.fat_mm} tone={step.tone} stop={null} onHeat={step.stage === 'reduce'} width={190} height={110} />
            <p aria-live="polite" className="min-w-60 flex-1 text-xl">
              <Words of={step.said} />
            </p>
            <span className="flex gap-2">
              {!last && <Button onClick={() => setAt(shown + 1)}>Next</Button>}
              <Button onClick={stop}>{last ? 'That was it' : 'Skip'}</Button>
            </span>
          </>
        ) : (
          !quiet && <Button onClick={() => setAt(0)}>Watch a sauce being made, half a minute</Button>
        )}
      </div>
    </section>
  )
}
