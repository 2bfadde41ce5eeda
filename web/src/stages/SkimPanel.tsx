import { useState } from 'react'
import { useSay } from '../app/units'
import { Button } from '../ui/Button'
import { TextField } from '../ui/TextField'
import { Figure } from './Figure'
import type { PanelProps } from './panel'

/** Fat off: a way to tap, or the amount that came off. */
export function SkimPanel({ batch, onRecord, problem }: PanelProps) {
  const say = useSay()
  const [amount, setAmount] = useState('')
  const { pot } = batch
  return (
    <div className="grid gap-6">
      <div className="grid gap-4 sm:grid-cols-2">
        <Figure
          label="fat on top"
          value={say(pot.fat)}
          note={`${say(pot.fat_depth)} thick`}
          tone="text-fat-ink"
          reason={pot.reasons.find((r) => r.what === 'Fat')}
        />
        <Figure label="liquid below" value={say(pot.liquid)} note={`± ${say(pot.liquid_error)}`} />
      </div>
      <div>
        <h2 className="mb-2 text-lg">Tap the way you did it</h2>
        <ul className="grid gap-3 sm:grid-cols-3">
          {batch.skim_ways.map((way) => (
            <li key={way.way}>
              <button
                type="button"
                onClick={() => onRecord({ kind: 'skimmed', way: way.way })}
                className="h-full w-full rounded-2xl border-2 border-line bg-panel p-4 text-left hover:border-ink"
              >
                <span className="block text-lg font-bold">{way.label}</span>
                <span className="block text-quiet">
                  leaves about {say(way.leaves)}
                  <br />
                  {way.time}
                </span>
                <span className="mt-2 block h-2.5 overflow-hidden rounded-full bg-line" aria-hidden="true">
                  <span className="block h-full bg-fat" style={{ width: `${way.share * 100}%` }} />
                </span>
              </button>
            </li>
          ))}
        </ul>
      </div>
      <form
        className="flex flex-wrap items-end gap-3"
        onSubmit={(event) => {
          event.preventDefault()
          onRecord({ kind: 'skimmed', way: 'spoon', fat_ml: amount }, () => setAmount(''))
        }}
      >
        <TextField
          label="Or say how much came off"
          placeholder="90 ml or 1/3 cup"
          value={amount}
          onChange={setAmount}
          error={problem?.at('fat_ml')}
          className="w-64"
        />
        <Button type="submit" disabled={!amount.trim()}>
          Took it off
        </Button>
        <Button onClick={() => onRecord({ kind: 'skimmed', way: 'spoon', fat_ml: 0 })}>Leave it on</Button>
      </form>
      <Cautions cautions={batch.skim_cautions} />
    </div>
  )
}

/** What to mind, with local rules before ours. */
export function Cautions({ cautions }: { cautions: readonly string[] }) {
  if (cautions.length === 0) return null
  return (
    <ul className="grid gap-1 border-l-4 border-heat pl-4">
      {cautions.map((caution) => (
        <li key={caution}>{caution}</li>
      ))}
    </ul>
  )
}
