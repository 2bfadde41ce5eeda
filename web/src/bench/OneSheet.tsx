import type { ReactNode } from 'react'
import { useLists } from '../api/lists'
import type { Batch } from '../api/types'
import { Cautions } from '../shared/Cautions'
import { clock, day } from '../shared/clock'
import { useSay, Words } from '../shared/units'
import { LONGEST_MM, TrueSkewer } from '../figures/TrueSkewer'
import { PassCard } from './PassCard'
import { PrintBar } from './PrintBar'
import { StoryPage } from './StoryPage'

const marked = { start: 'start', now: 'now', stop: 'stop here', ceiling: 'too salty below', over: 'too salty already' }

const SHEETS = { sheet: Whole, pass: PassCard, story: StoryPage }

/** What of a batch is printed: its sheet, its card for the pass, or its story. */
export default function OneSheet({ batch, view }: { batch: Batch; view: keyof typeof SHEETS }) {
  const Sheet = SHEETS[view]
  return <Sheet batch={batch} />
}

/** The batch on one sheet of paper: its marks at true size, amounts, salt, times, cautions and what it brings. */
function Whole({ batch }: { batch: Batch }) {
  const say = useSay()
  const { dishes } = useLists()
  // What is left to do is no matter any more once all of it is done.
  const { wanted, pot, curve } = batch
  const plan = batch.finished ? null : batch.plan
  const strained = batch.ribbon.find(({ stage }) => stage === 'strain')
  const seen = new Set<string>()
  const cautions = [...batch.concerns, ...batch.boil_cautions, ...batch.serve_cautions].filter((one) => {
    const text = say(one)
    return !seen.has(text) && seen.add(text)
  })
  return (
    <main className="mx-auto max-w-[54rem] p-6 print:max-w-none print:p-0">
      <PrintBar back={`/batches/${batch.id}`}>
        <p className="text-quiet">Print at 100 %, so that the skewer is true to size.</p>
      </PrintBar>
      <header className="border-b-2 border-ink pb-1">
        <h1 className="text-2xl leading-tight break-words">{batch.name}</h1>
        <p>
          {day(batch.created_at)}, {clock(batch.created_at)} · {batch.pan.name} · {batch.burner}
        </p>
      </header>
      <div className="mt-3 grid grid-cols-[minmax(0,1fr)_auto] gap-6">
        <div className="grid content-start gap-3">
          {strained && (
            <Part name="There was">
              {say(strained.liquid)} of liquid, {strained.salt_percent.toFixed(2)} % salt
            </Part>
          )}
          {wanted && (
            <Part name="Wanted">
              {say(wanted.amount)}
              {wanted.by_people && <>, for {wanted.people}, {dishes.find(({ key }) => key === wanted.over)?.label}</>}; {batch.ladder[wanted.body]?.everyday}; {wanted.salt_percent.toFixed(2)} % salt, too salty at{' '}
              {wanted.ceiling_percent.toFixed(2)} %
            </Part>
          )}
          {batch.account && (
            <Part name="In short">
              <Words of={batch.account} />
            </Part>
          )}
          {batch.finished && <Done batch={batch} />}
          <Part name={batch.finished ? 'Made' : 'There is'}>
            {batch.finished ? say(batch.served.volume) : <>{say(pot.liquid)}, {say(pot.depth)} deep{pot.gross && <>, {say(pot.gross)} on the scale</>}</>}; {pot.salt.best.toFixed(2)} % salt, {pot.body.everyday}
          </Part>
          {plan && (
            <Part name={plan.label}>
              <Words of={plan.said} />
              {curve.stop_reads && (
                <>
                  {' '}
                  Stop at <b>{say(curve.stop_reads.dip)}</b> by a dip, {say(curve.stop_reads.jug)} in the jug and hot{curve.stop_reads.scale && <>, {say(curve.stop_reads.scale)} on the scale</>}.
                </>
              )}
            </Part>
          )}
          {plan?.dry && (
            <Part name="Thicken">
              {say(plan.dry)}
              {plan.dry_also && <> ({say(plan.dry_also)})</>} {plan.dry_name}
              {plan.carrier && <> with {say(plan.carrier)} of {plan.carrier_name}</>}, by parts. {plan.how}
            </Part>
          )}
          {plan && (
            <Part name="Salt at the end">
              {plan.salt_to_add ? <>{say(plan.salt_to_add)}{plan.salt_to_add_also && <> ({say(plan.salt_to_add_also)})</>} of table salt, three quarters of it first; then taste. </> : 'None to add; taste. '}
              {plan.salt_after.best.toFixed(2)} % then
            </Part>
          )}
          {plan && (
            <Part name="Time">
              {say(plan.takes)} in all
              {plan.leave && <>. <Words of={plan.leave} /></>}
              {curve.arrive && <> There at {clock(curve.arrive.best)}, {clock(curve.arrive.low)} to {clock(curve.arrive.high)}</>}
            </Part>
          )}
          {plan && plan.allergens.length > 0 && <Part name="Brings">{plan.allergens.join(', ')}</Part>}
          <Part name="Mind">
            <Cautions cautions={cautions} />
          </Part>
        </div>
        <figure className="m-0">
          <TrueSkewer deepMm={batch.pan.height_mm} marks={batch.marks.map((mark) => ({ key: mark.kind, mm: mark.depth.value, label: `${say(mark.depth)}, ${batch.finished && mark.kind === 'now' ? 'end' : marked[mark.kind]}` }))} />
          {batch.pan.height_mm > LONGEST_MM && <figcaption className="max-w-56 text-sm">The pan is deeper than this paper. Print its skewer from Strain.</figcaption>}
        </figure>
      </div>
    </main>
  )
}

/** Kinds of entries that say what was there, wanted or corrected, and not what was done to the sauce. */
const UNDONE = new Set(['started', 'wanted', 'chosen', 'hushed', 'struck', 'dated', 'read', 'finished'])

/** What was done to it, in the order of its time. */
function Done({ batch }: { batch: Batch }) {
  const say = useSay()
  const first = batch.curve.points[0]
  const last = batch.curve.points.at(-1)
  const done = batch.log.filter(({ kind, struck, problem }) => !struck && !problem && !UNDONE.has(kind)).sort((a, b) => Date.parse(a.at) - Date.parse(b.at))
  return (
    <>
      {first && last && first !== last && (
        <Part name="Boiled down">
          {say(first.liquid)} to {say(last.liquid)}, {clock(first.at)} to {clock(last.at)}
        </Part>
      )}
      {done.length > 0 && (
        <Part name="Done">
          <ul>
            {done.map((entry) => (
              <li key={entry.id}>
                {clock(entry.at)} <Words of={entry.text} />
              </li>
            ))}
          </ul>
        </Part>
      )}
    </>
  )
}

function Part({ name, children }: { name: string; children: ReactNode }) {
  return (
    <section>
      <h2 className="text-sm leading-tight text-quiet">{name}</h2>
      <div className="leading-snug">{children}</div>
    </section>
  )
}
