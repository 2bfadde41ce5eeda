import { useSay } from '../app/units'
import { Button } from '../ui/Button'
import { Unfold } from '../ui/Unfold'
import { Figure } from './Figure'
import type { PanelProps } from './panel'

const methods = { jug: 'a jug', dip: 'a dip', scale: 'the scale' }

/** What is in the pot, with the arithmetic of every figure. */
export function StrainPanel({ batch, onOpen }: PanelProps) {
  const say = useSay()
  const { pot } = batch
  const reason = (what: string) => pot.reasons.find((r) => r.what === what)
  return (
    <div className="grid gap-6">
      <div className="grid gap-x-6 gap-y-4 grid-cols-2 sm:grid-cols-3">
        <Figure label="liquid" value={say(pot.liquid)} note={`± ${say(pot.liquid_error)}`} reason={reason('Liquid')} />
        <Figure
          label="salt"
          tone="text-salt"
          value={`${pot.salt.best.toFixed(2)} %`}
          note={`likely ${pot.salt.low.toFixed(2)} to ${pot.salt.high.toFixed(2)} %`}
          reason={reason('Salt')}
        />
        <Figure label="body" value={pot.body.word} note={pot.body.does} reason={reason('Body')} />
      </div>
      <div>
        <h2 className="mb-2 text-lg">In the pot now</h2>
        <ul className="grid gap-x-8 sm:grid-cols-2">
          {pot.contents.map((row) => (
            <li key={row.name} className="border-b border-line py-1">
              <Unfold
                label="how it comes about"
                summary={
                  <span className="flex min-h-10 items-center justify-between gap-3">
                    <span>{row.name}</span>
                    <span>
                      <span className="font-bold">{say(row.mass)}</span>
                      <span className="ml-2 inline-block w-20 text-right whitespace-nowrap text-quiet">{row.percent.toFixed(2)} %</span>
                    </span>
                  </span>
                }
              >
                {say(row.how)}
              </Unfold>
            </li>
          ))}
        </ul>
      </div>
      <div>
        <h2 className="mb-2 text-lg">Measuring this pot</h2>
        <ul className="flex flex-wrap gap-x-8 gap-y-2">
          {pot.methods.map((method) => (
            <li key={method.method} className={method.usable ? '' : 'text-quiet line-through'}>
              <span className={method.best ? 'font-bold text-done' : ''}>{methods[method.method]}</span>: ± {say(method.error)}
              {method.best && <span className="text-done">, best here</span>}
            </li>
          ))}
        </ul>
      </div>
      <div>
        <Button onClick={() => onOpen('correct')}>Correct the start</Button>
      </div>
    </div>
  )
}
