import { Suspense, use, useState } from 'react'
import { useLists } from '../api/lists'
import type { Batch } from '../api/types'
import { clock } from '../shared/clock'
import { useKept } from '../shared/useKept'
import { useNow } from '../shared/useNow'
import { minutesUntil, Units, useSay, Words } from '../shared/units'
import { Lens } from '../figures/Lens'
import { ReductionCurve } from '../figures/ReductionCurve'
import { Button } from '../ui/Button'
import { Choice } from '../ui/Choice'
import { Cautions } from '../shared/Cautions'
import { useStands, type Stands } from '../shared/useStands'
import { Figure, reasonOf } from '../shared/Figure'
import { Unfold } from '../ui/Unfold'
import { HeatControl } from './HeatControl'
import { Signs } from './Signs'
import { useBench } from './useBench'
import { part } from '../ui/part'

const PansSheet = part(() => import('./PansSheet'))

type Reads = NonNullable<Batch['curve']['stop_reads']>
type By = keyof Reads

/** How far, how long, and how it has gone. */
export default function ReducePanel() {
  const { batch, onOpen } = useBench()
  const say = useSay()
  const units = use(Units)
  const now = useNow()
  const { pot, plan, curve, act } = batch
  const boiling = act.doing === 'boil' && curve.stop && curve.arrive
  const stands = useStands(batch)
  return (
    <div className="grid gap-3">
      {curve.stop_reads && curve.stop ? (
        <Stop reads={curve.stop_reads} liquid={say(curve.stop)} stands={stands} now={now} />
      ) : (
        <div className="grid grid-cols-2 gap-x-6 gap-y-3 sm:grid-cols-3">
          <Figure label="in the pan" explains={['spread', 'What is ±?']} value={say(pot.liquid)} note={`± ${say(pot.liquid_error)} · ${say(pot.depth)}`} reason={reasonOf(pot.reasons, 'liquid')} />
          <Figure label="stop at" value="–" note={plan ? 'Nothing more to boil away.' : 'Plan first.'} />
          <Figure label="salt now" explains={['salt', 'Salt in per cent?']} tone="text-salt" value={`${pot.salt.best.toFixed(2)} %`} reason={reasonOf(pot.reasons, 'salt')} />
        </div>
      )}
      {!plan && (
        <button type="button" className="min-h-12 justify-self-start text-lg font-semibold underline" onClick={() => onOpen('plan')}>
          Say what you want, and pick a way there
        </button>
      )}
      <ReductionCurve
        points={curve.points.map((p) => ({ at: Date.parse(p.at), ml: p.liquid.value, errorMl: p.error_ml, label: say(p.liquid) }))}
        kept={stands.kept}
        course={curve.course.map((p) => ({ at: Date.parse(p.at), ml: p.liquid.value, low: p.low_ml, high: p.high_ml }))}
        slope={curve.rate ? say(curve.rate) : undefined}
        stop={curve.stop ? { ml: curve.stop.value, label: `stop ${say(curve.stop)}` } : null}
        ceiling={curve.ceiling ? { ml: curve.ceiling.value, label: `too salty below ${say(curve.ceiling)}` } : null}
        axis={{ low: curve.axis.low_ml, high: curve.axis.high_ml, ticks: curve.axis[units].map((tick) => ({ ml: tick.value, label: say(tick) })) }}
        now={now}
        lookAt={stands.there ? null : (stands.look ?? (act.look_at === null ? null : Date.parse(act.look_at)))}
        clock={clock}
        height={148}
      />
      <p className="text-quiet">
        {curve.rate ? <Words of={curve.rate} /> : act.doing === 'heat' ? 'The heat is off.' : ''}
        {plan?.leave && boiling && <> <Words of={plan.leave} /></>}
      </p>
      <Cautions cautions={batch.boil_cautions} />
    </div>
  )
}

/** What may be done about the pan and its heat. */
export function Beneath() {
  const { batch, onOpen, onRecord } = useBench()
  const [pans, setPans] = useState(false)
  if (batch.finished) return null
  const { making } = batch
  return (
    <div className="mt-2 flex flex-wrap gap-2">
      {making && !making.ready && <Button onClick={() => onOpen('thicken')}>{making.since ? 'On beside it' : 'Meanwhile'}: {making.label}</Button>}
      <HeatControl />
      <Button onClick={() => setPans(true)}>{batch.beside ? `Beside it: ${batch.beside}` : 'Which pan?'}</Button>
      <Signs />
      <Button onClick={() => onRecord({ kind: 'added', ingredient: 'water', volume_ml: 10 })}>Brushed down</Button>
      {pans && (
        <Suspense>
          <PansSheet onClose={() => setPans(false)} />
        </Suspense>
      )}
    </div>
  )
}

/** Letters of this width, in hundredths of the room, fill it: a letter is about six tenths as wide as high. */
const GIANT = 160

interface StopProps {
  reads: Reads
  liquid: string
  stands: Stands
  now: number
}

/** Where to stop, as the biggest thing in sight, in what it is measured with; and how far there. */
function Stop({ reads, liquid, stands, now }: StopProps) {
  const { batch } = useBench()
  const say = useSay()
  const { ways_to_measure: names } = useLists()
  const { pot, plan, curve, act, marks } = batch
  const [kept, keep] = useKept<By>(`reads-${batch.id}`)
  const usable = pot.methods.filter((m) => m.usable && reads[m.method as By])
  const by = usable.find((m) => m.method === (kept ?? act.reads_by)) ?? usable[0]
  const method = (by?.method ?? 'dip') as By
  const here = stands.now?.point.reads[method]
  const dip = stands.now?.depthMm ?? pot.depth.value
  const ceiling = marks.find((mark) => mark.kind === 'ceiling')
  const stop = reads[method] ?? reads.dip
  const reason = reasonOf(plan?.reasons, method === 'scale' ? 'scale' : 'dip_mark')
  const due = stands.look ?? (act.look_at === null ? null : Date.parse(act.look_at))
  return (
    <div className="grid grid-cols-[7rem_minmax(0,1fr)] items-start sm:grid-cols-[13rem_minmax(0,1fr)] 2xl:grid-cols-[19rem_minmax(0,1fr)] gap-x-5 gap-y-2">
      <Lens stopMm={reads.dip.value} stopLabel={say(stop)} nowMm={dip} nowLabel={say(here ?? pot.depth)} ceilingMm={ceiling?.depth.value ?? null} errorMm={by?.error_mm ?? 0} tone={pot.tone} />
      <div className="@container min-w-0">
        <Unfold
          label="how it comes about"
          summary={
            <>
              <span className="block text-lg text-quiet">
                stop at{method === 'jug' ? ', in the jug and hot' : ''} <span className="whitespace-nowrap">({liquid} of liquid)</span>
              </span>
              <span data-of="stop at" className="block leading-[0.95] font-bold tracking-tight whitespace-nowrap text-done" style={{ fontSize: `min(clamp(7rem, 14dvh, 11rem), ${GIANT / say(stop).length}cqw)` }}>
                {say(stop)}
              </span>
            </>
          }
        >
          {reason && <Words of={reason.how} />}
        </Unfold>
        <div className="mt-2 mb-2">
          <Choice
            label="Measured by"
            hideLabel
            value={method}
            onChange={keep}
            options={usable.map((m) => ({ value: m.method as By, label: names.find(({ key }) => key === m.method)?.label ?? m.method }))}
          />
        </div>
        <dl className="flex flex-wrap gap-x-7 gap-y-1">
          {here && <At name="now, about">{say(here)}</At>}
          {stands.arrives !== null ? (
            <At name="there, by what you read">{clock(stands.arrives)}</At>
          ) : (
            curve.arrive && <At name={`there, ${clock(curve.arrive.low)} to ${clock(curve.arrive.high)}`}>{clock(curve.arrive.best)}</At>
          )}
          {due !== null && <At name={due > now ? 'look in' : 'look'}>{due > now ? minutesUntil(due, now) : 'now'}</At>}
        </dl>
      </div>
    </div>
  )
}

function At({ name, children }: { name: string; children: string }) {
  return (
    <div>
      <dt className="text-quiet">{name}</dt>
      <dd className="text-3xl leading-tight font-bold whitespace-nowrap lg:text-[2.6rem]">{children}</dd>
    </div>
  )
}
