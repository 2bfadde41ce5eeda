import { useMutation, useQueryClient } from '@tanstack/react-query'
import { answer, client, type Problem, type Schemas } from '../api/client'
import { keys } from '../api/keys'
import { SpanBar } from '../figures/SpanBar'
import { Words } from '../shared/units'
import { Button } from '../ui/Button'

const heats = { boil: 'at a full boil', simmer: 'at a simmer', oven: 'in the oven' }

/** What finished batches taught of each pan on each burner; it can be forgotten. */
export function Learned({ learned, liking, mayChange }: { learned: readonly Schemas['LearnedOut'][]; liking: Schemas['LikingOut'] | null; mayChange: boolean }) {
  const queries = useQueryClient()
  const forget = useMutation<unknown, Problem, { pan: string; burner: string }>({
    mutationFn: (query) => answer(client.DELETE('/api/v1/learned', { params: { query } })),
    onSuccess: () => queries.invalidateQueries({ queryKey: keys.kitchen }),
  })
  const forgetLiking = useMutation<unknown, Problem>({
    mutationFn: () => answer(client.DELETE('/api/v1/liking')),
    onSuccess: () => queries.invalidateQueries({ queryKey: keys.kitchen }),
  })
  return (
    <section aria-labelledby="learned">
      <h2 id="learned" className="mt-10 mb-1 text-xl">
        What this kitchen has learned
      </h2>
      {liking && (
        <div className="mb-4 flex items-center justify-between gap-4 border-b border-line pb-3">
          <p>
            You like your sauces at about <b className="text-salt">{liking.percent.best.toFixed(2)} %</b> salt
            <span className="text-quiet">, likely {liking.percent.low.toFixed(2)} to {liking.percent.high.toFixed(2)}; from {liking.batches === 1 ? 'one batch' : `${liking.batches} batches`}. {liking.proposes ? `New batches begin at ${liking.proposed_percent.toFixed(2)} %.` : 'After a few more it is what is proposed.'}</span>
            {liking.more.length > 0 && (
              <span className="block text-quiet">
                And {liking.more.map((said, i) => <span key={i}>{i > 0 && ', '}<Words of={said} /></span>)}: new batches begin so.
              </span>
            )}
          </p>
          {mayChange && (
            <Button className="shrink-0" onClick={() => forgetLiking.mutate()}>
              <span>
                Forget<span className="sr-only"> what you like</span>
              </span>
            </Button>
          )}
        </div>
      )}
      <p className="mb-4 text-quiet">Steam in grams a minute, from batches that were read at least twice. The next batch in the same pan begins with it.</p>
      <ul className="grid gap-x-8 gap-y-2 lg:grid-cols-2">
        {learned.map((rate) => (
          <li key={`${rate.pan} ${rate.burner} ${rate.heat}`} className="grid grid-cols-[1fr_auto] items-center gap-x-4 border-b border-line py-2">
            <div className="min-w-0">
              <p className="font-semibold">
                {rate.pan}, {rate.burner}
              </p>
              <p className="text-quiet">
                <b className="text-ink">{Math.round(rate.best_g_min)}</b> {heats[rate.heat]}, likely {Math.round(rate.low_g_min)} to {Math.round(rate.high_g_min)}; from{' '}
                {rate.batches === 1 ? 'one batch' : `${rate.batches} batches`}
              </p>
              <SpanBar low={rate.low_g_min} best={rate.best_g_min} high={rate.high_g_min} ink="var(--vapour)" />
            </div>
            {mayChange && (
              <Button onClick={() => forget.mutate({ pan: rate.pan, burner: rate.burner })}>
                <span>
                  Forget<span className="sr-only"> {rate.pan}, {rate.burner}</span>
                </span>
              </Button>
            )}
          </li>
        ))}
      </ul>
      {learned.length === 0 && <p className="text-lg">Nothing yet. Finish a batch with two readings or more, and its rate is kept.</p>}
    </section>
  )
}
