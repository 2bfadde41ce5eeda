import { clock } from '../app/clock'
import { useSay } from '../app/units'
import { ReductionCurve } from '../figures/ReductionCurve'
import { Figure } from './Figure'
import type { PanelProps } from './panel'
import { Cautions } from './Cautions'

/** How far, how long, and how it has gone. */
export function ReducePanel({ batch, onOpen }: PanelProps) {
  const say = useSay()
  const { pot, plan, curve, act } = batch
  const stop = batch.marks.find((mark) => mark.kind === 'stop')
  const boiling = act.kind === 'boil' && curve.stop && curve.arrive
  const reason = (what: string) => plan?.reasons.find((r) => r.what === what)
  return (
    <div className="grid gap-4">
      <div className="grid gap-x-6 gap-y-3 grid-cols-2 sm:grid-cols-3">
        <Figure
          label="in the pan now"
          value={say(pot.liquid)}
          note={`± ${say(pot.liquid_error)} · ${say(pot.depth)}`}
          reason={pot.reasons.find((r) => r.what === 'Liquid')}
        />
        {boiling && curve.stop ? (
          <Figure
            label="stop at"
            tone="text-done"
            value={say(curve.stop)}
            note={`${stop ? say(stop.depth) : ''}${plan?.gross ? ` · scale ${say(plan.gross)}` : ''}`}
            reason={reason('Dip mark')}
          />
        ) : (
          <Figure label="stop at" value="–" note={plan ? 'Nothing more to boil away.' : 'Plan first.'} />
        )}
        {boiling && curve.arrive ? (
          <Figure
            label="there at"
            value={clock(curve.arrive.best)}
            note={`${clock(curve.arrive.low)} to ${clock(curve.arrive.high)}`}
            reason={reason('Time')}
          />
        ) : (
          <Figure label="salt now" tone="text-salt" value={`${pot.salt.best.toFixed(2)} %`} reason={pot.reasons.find((r) => r.what === 'Salt')} />
        )}
      </div>
      {plan && boiling && (
        <p className="text-lg">
          Leave {Math.round(plan.share_left * 100)} % of what is there = boil off {100 - Math.round(plan.share_left * 100)} %.
        </p>
      )}
      {!plan && (
        <button type="button" className="justify-self-start text-lg font-semibold underline" onClick={() => onOpen('plan')}>
          Say what you want, and pick a way there
        </button>
      )}
      <ReductionCurve
        points={curve.points.map((p) => ({ at: Date.parse(p.at), ml: p.liquid.value, errorMl: p.error_ml }))}
        stop={boiling && curve.stop ? { ml: curve.stop.value, label: `stop ${say(curve.stop)}` } : null}
        ceiling={curve.ceiling ? { ml: curve.ceiling.value, label: `too salty below ${say(curve.ceiling)}` } : null}
        arrive={boiling && curve.arrive ? { low: Date.parse(curve.arrive.low), best: Date.parse(curve.arrive.best), high: Date.parse(curve.arrive.high) } : null}
        height={226}
      />
      <Cautions cautions={batch.boil_cautions} />
    </div>
  )
}
