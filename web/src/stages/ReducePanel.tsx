import { useState } from 'react'
import { clock } from '../shared/clock'
import { useNow } from '../shared/useNow'
import { useSay, Words } from '../shared/units'
import { ReductionCurve } from '../figures/ReductionCurve'
import { Button } from '../ui/Button'
import { Cautions } from '../shared/Cautions'
import { standsAt } from '../shared/course'
import { Figure, reasonOf } from '../shared/Figure'
import { HeatControl } from './HeatControl'
import { PansSheet } from './PansSheet'
import { useBench } from './useBench'

/** How far, how long, and how it has gone. */
export default function ReducePanel() {
  const { batch, onOpen, onRecord } = useBench()
  const say = useSay()
  const [pans, setPans] = useState(false)
  const now = useNow()
  const { pot, plan, curve, act } = batch
  const stop = batch.marks.find((mark) => mark.kind === 'stop')
  const boiling = act.doing === 'boil' && curve.stop && curve.arrive
  const stands = boiling ? standsAt(curve.course, now) : null
  return (
    <div className="grid gap-3">
      <div className="grid grid-cols-2 gap-x-6 gap-y-3 sm:grid-cols-3">
        {stands ? (
          <Figure
            label="now, about"
            value={say(stands.point.liquid)}
            note={`${say(stands.point.depth)}${stands.point.gross ? ` · scale ${say(stands.point.gross)}` : ''}`}
            reason={reasonOf(pot.reasons, 'liquid')}
          />
        ) : (
          <Figure
            label="in the pan"
            value={say(pot.liquid)}
            note={`± ${say(pot.liquid_error)} · ${say(pot.depth)}`}
            reason={reasonOf(pot.reasons, 'liquid')}
          />
        )}
        {curve.stop && (boiling || act.doing === 'heat') ? (
          <Figure
            label="stop at"
            tone="text-done"
            value={say(curve.stop)}
            note={`${stop ? say(stop.depth) : ''}${plan?.gross ? ` · scale ${say(plan.gross)}` : ''}`}
            reason={reasonOf(plan?.reasons, 'dip_mark')}
          />
        ) : (
          <Figure label="stop at" value="–" note={plan ? 'Nothing more to boil away.' : 'Plan first.'} />
        )}
        {boiling && curve.arrive ? (
          <Figure label="there at" value={clock(curve.arrive.best)} note={`${clock(curve.arrive.low)} to ${clock(curve.arrive.high)}`} reason={reasonOf(plan?.reasons, 'time')} />
        ) : (
          <Figure label="salt now" tone="text-salt" value={`${pot.salt.best.toFixed(2)} %`} reason={reasonOf(pot.reasons, 'salt')} />
        )}
      </div>
      {!plan && (
        <button type="button" className="min-h-12 justify-self-start text-lg font-semibold underline" onClick={() => onOpen('plan')}>
          Say what you want, and pick a way there
        </button>
      )}
      <ReductionCurve
        points={curve.points.map((p) => ({ at: Date.parse(p.at), ml: p.liquid.value, errorMl: p.error_ml }))}
        course={curve.course.map((p) => ({ at: Date.parse(p.at), ml: p.liquid.value, low: p.low_ml, high: p.high_ml }))}
        stop={curve.stop ? { ml: curve.stop.value, label: `stop ${say(curve.stop)}` } : null}
        ceiling={curve.ceiling ? { ml: curve.ceiling.value, label: `too salty below ${say(curve.ceiling)}` } : null}
        now={now}
        lookAt={act.look_at === null ? null : Date.parse(act.look_at)}
        clock={clock}
        height={212}
      />
      <p className="text-quiet">
        {curve.rate ? <Words of={curve.rate} /> : act.doing === 'heat' ? 'The heat is off: nothing is foretold.' : ''}
        {plan?.leave && boiling && <> It is to <Words of={plan.leave} />.</>}
      </p>
      {!batch.finished && (
        <div className="flex flex-wrap gap-2">
          <HeatControl />
          <Button onClick={() => setPans(true)}>{batch.beside ? `Beside it: ${batch.beside}` : 'Which pan?'}</Button>
          <Button onClick={() => onRecord({ kind: 'added', ingredient: 'water', volume_ml: 10 })}>Brushed down</Button>
        </div>
      )}
      <Cautions cautions={batch.boil_cautions} />
      {pans && <PansSheet onClose={() => setPans(false)} />}
    </div>
  )
}
