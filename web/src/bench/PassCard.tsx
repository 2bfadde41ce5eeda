import { useLists } from '../api/lists'
import type { Batch } from '../api/types'
import { Cautions } from '../shared/Cautions'
import { clock, day } from '../shared/clock'
import { useSay, Words } from '../shared/units'
import { PrintBar } from './PrintBar'

/** What whoever plates it reads from a step away: how many helpings, of what size, what it holds, how hot it stays. */
export function PassCard({ batch }: { batch: Batch }) {
  const say = useSay()
  const { dishes } = useLists()
  const { served, wanted, pot } = batch
  const over = wanted?.by_people ? dishes.find(({ key }) => key === wanted.over)?.label : undefined
  return (
    <main className="mx-auto max-w-[46rem] p-6 print:max-w-none print:p-0">
      <PrintBar back={`/batches/${batch.id}/serve`} />
      <article aria-label="Card for the pass" className="grid gap-4 rounded-2xl border-2 border-ink bg-panel p-6 print:rounded-none print:bg-white print:text-black">
        <header>
          <h1 className="text-4xl leading-tight font-bold break-words">{batch.name}</h1>
          <p className="text-lg text-quiet">
            {day(batch.created_at)}
            {over && <>, over {over}</>}
          </p>
        </header>
        <div className="flex flex-wrap items-baseline gap-x-8 gap-y-2">
          <p>
            <span className="text-7xl leading-none font-extrabold">{served.portions ?? say(served.volume)}</span>
            {served.portions !== null && wanted?.portion && <span className="ml-3 text-3xl">helpings of {say(wanted.portion)}</span>}
          </p>
          {served.seconds > 0 && <p className="text-2xl">{served.seconds === 1 ? 'one for seconds' : `${served.seconds} for seconds`}</p>}
        </div>
        <p className="text-xl">
          {pot.body.everyday}, {pot.salt.best.toFixed(1)} % salt. <Words of={served.on_plate} />
        </p>
        {batch.ready?.by && !batch.finished && <p className="text-2xl font-bold">On the table at {clock(batch.ready.by)}</p>}
        <div className="text-lg">
          <Cautions cautions={[...batch.concerns, ...batch.serve_cautions]} />
        </div>
      </article>
    </main>
  )
}
