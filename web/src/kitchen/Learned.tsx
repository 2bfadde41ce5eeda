import { useMutation, useQueryClient } from '@tanstack/react-query'
import type { ReactNode } from 'react'
import { Link } from 'wouter'
import { answer, client, type Problem, type Schemas } from '../api/client'
import { keys } from '../api/keys'
import type { Kitchen } from '../api/types'
import { SpanBar } from '../figures/SpanBar'
import { day } from '../shared/clock'
import { Words } from '../shared/units'
import { Button } from '../ui/Button'
import { Unfold } from '../ui/Unfold'

const heats = { boil: 'at a full boil', simmer: 'at a simmer', oven: 'in the oven' }

const from = (batches: number) => (batches === 1 ? 'one batch' : `${batches} batches`)

/** Something of what was learned is forgotten, and the kitchen is read again. */
function useForget() {
  const queries = useQueryClient()
  return useMutation<unknown, Problem, () => Promise<unknown>>({
    mutationFn: (forget) => forget(),
    onSuccess: () => queries.invalidateQueries({ queryKey: keys.kitchen }),
  })
}

/** What finished batches taught: what is liked, how strongly the thickeners bind, and each pan on each burner. All of it
 * can be forgotten, as a whole or what a single batch said. */
export function Learned({ kitchen, mayChange }: { kitchen: Kitchen; mayChange: boolean }) {
  const { learned, liking, strengths } = kitchen
  const forget = useForget()
  const drop = (label: string, gone: () => Promise<unknown>) =>
    mayChange && (
      <Button className="shrink-0 self-start" onClick={() => forget.mutate(gone)}>
        <span>
          Forget<span className="sr-only"> {label}</span>
        </span>
      </Button>
    )
  return (
    <section aria-labelledby="learned">
      <h2 id="learned" className="mt-10 mb-1 text-xl">
        What this kitchen has learned
      </h2>
      {liking && (
        <Row act={drop('what you like', () => answer(client.DELETE('/api/v1/liking')))}>
          <p>
            You like your sauces at about <b className="text-salt">{liking.percent.best.toFixed(2)} %</b> salt
            <span className="text-quiet">, likely {liking.percent.low.toFixed(2)} to {liking.percent.high.toFixed(2)}; from {from(liking.batches)}. {liking.proposes ? `New batches begin at ${liking.proposed_percent.toFixed(2)} %.` : 'After a few more it is what is proposed.'}</span>
            {liking.more.length > 0 && (
              <span className="block text-quiet">
                And {liking.more.map((said, i) => <span key={i}>{i > 0 && ', '}<Words of={said} /></span>)}: new batches begin so.
              </span>
            )}
          </p>
          <Evidence of={liking.evidence} label="the salt you like" mayChange={mayChange} />
        </Row>
      )}
      {strengths.map((one) => (
        <Row key={one.dry} act={drop(one.dry, () => answer(client.DELETE('/api/v1/learned/strength', { params: { query: { dry: one.dry } } })))}>
          <p>
            Your {one.dry} thickens <b>{one.times.best.toFixed(2)} times</b> as strongly as the tables say
            <span className="text-quiet">, likely {one.times.low.toFixed(2)} to {one.times.high.toFixed(2)}; from {from(one.batches)}. {one.counts ? 'New batches are dosed by it.' : 'After a few more batches doses go by it.'}</span>
          </p>
          <Evidence of={one.evidence} label={one.dry} mayChange={mayChange} />
        </Row>
      ))}
      <p className="my-4 text-quiet">Steam in grams a minute, from batches that were read at least twice. The next batch in the same pan begins with it; another pan or stove, or one that was changed, is another thing.</p>
      <ul className="grid gap-x-8 gap-y-2 lg:grid-cols-2">
        {learned.map((rate) => (
          <li key={`${rate.pan} ${rate.burner} ${rate.heat}`}>
            <Row act={drop(`${rate.pan}, ${rate.burner}`, () => answer(client.DELETE('/api/v1/learned', { params: { query: { pan: rate.pan, burner: rate.burner } } })))}>
              <p className="font-semibold">
                {rate.pan}, {rate.burner}
              </p>
              <p className="text-quiet">
                <b className="text-ink">{Math.round(rate.best_g_min)}</b> {heats[rate.heat]}, likely {Math.round(rate.low_g_min)} to {Math.round(rate.high_g_min)}; from {from(rate.batches)}
              </p>
              <SpanBar low={rate.low_g_min} best={rate.best_g_min} high={rate.high_g_min} ink="var(--vapour)" />
              <Evidence of={rate.evidence} label={`${rate.pan}, ${rate.burner}`} mayChange={mayChange} />
            </Row>
          </li>
        ))}
      </ul>
      {learned.length === 0 && <p className="text-lg">Nothing yet. Finish a batch with two readings or more, and its rate is kept.</p>}
    </section>
  )
}

function Row({ act, children }: { act: ReactNode; children: ReactNode }) {
  return (
    <div className="flex items-center justify-between gap-4 border-b border-line py-2">
      <div className="min-w-0 flex-1">{children}</div>
      {act}
    </div>
  )
}

/** The batches that said so, the newest first; what one of them said can be forgotten by itself. */
function Evidence({ of, label, mayChange }: { of: Schemas['EvidenceOut'][]; label: string; mayChange: boolean }) {
  const forget = useForget()
  if (of.length === 0) return null
  return (
    <Unfold summary={<span className="inline-flex min-h-12 items-center text-quiet underline decoration-dotted">Where that is from</span>} label={`: ${label}`}>
      <ul>
        {of.map(({ batch, at, said }) => (
          <li key={batch} className="flex flex-wrap items-center gap-x-3">
            <Link href={`/batches/${batch}`} className="inline-flex min-h-12 items-center underline">
              {day(at)}
            </Link>
            <span className="flex-1">
              <Words of={said} />
            </span>
            {mayChange && (
              <button type="button" className="min-h-12 underline" onClick={() => forget.mutate(() => answer(client.DELETE('/api/v1/learned/batches/{batch_id}', { params: { path: { batch_id: batch } } })))}>
                Forget this batch
              </button>
            )}
          </li>
        ))}
      </ul>
    </Unfold>
  )
}
