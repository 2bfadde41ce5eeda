import { useState } from 'react'
import type { Batch } from '../api/types'
import { Swatch } from '../figures/Swatch'
import { useNow } from '../shared/useNow'
import { Words } from '../shared/units'
import { Button } from '../ui/Button'
import { Choice } from '../ui/Choice'
import { useBench } from './useBench'

type Card = NonNullable<Batch['making']>
type Liquid = Card['liquids'][number]['key']

/** What a slurry is stirred into where nothing else was taken. */
const AS_EVER = 'as_ever'

/** Making the thickener beside the pot: what to weigh, what to do by its own clock, and what of it is left. */
export function Making({ card }: { card: Card }) {
  const { batch, onRecord } = useBench()
  const now = useNow()
  const [liquid, setLiquid] = useState<Liquid | typeof AS_EVER>(card.stirred_into ?? AS_EVER)
  const gone = card.since && !card.ready ? (now - Date.parse(card.since)) / 60_000 : null
  const prepare = (stands: 'begun' | 'ready') => {
    const into = liquid === AS_EVER ? {} : { stirred_into: liquid }
    onRecord({ kind: 'prepared', thickener: card.school, dry_g: card.dry_g, stands, ...into })
  }
  return (
    <section aria-label={`Making it: ${card.label}`} className="grid gap-3 rounded-xl border-2 border-line p-3 sm:p-4">
      <header className="flex flex-wrap items-baseline justify-between gap-x-4">
        <h2 className="text-2xl leading-tight font-bold first-letter:uppercase">{card.label}</h2>
        {card.ready && !batch.finished && <p className="text-lg font-semibold text-done">stands ready</p>}
        {gone !== null && <Clock gone={gone} takes={card.takes_min} />}
      </header>
      {!batch.finished && <HowTo card={card} gone={gone} />}
      {card.left && (
        <p role="status" className="text-lg font-semibold">
          <Words of={card.left} />
        </p>
      )}
      {!batch.finished && !card.ready && (
        <>
          {card.liquids.length > 0 && (
            <Choice
              label="Stir it into"
              value={liquid}
              onChange={setLiquid}
              options={[{ value: AS_EVER, label: 'its own liquid' } as const, ...card.liquids.map(({ key, label }) => ({ value: key, label }))]}
            />
          )}
          <div className="flex flex-wrap gap-2">
            {card.takes_min !== null && gone === null && <Button onClick={() => prepare('begun')}>Begin it now</Button>}
            <Button onClick={() => prepare('ready')}>It stands ready</Button>
          </div>
        </>
      )}
    </section>
  )
}

/** What to weigh, and what to do by its clock. */
function HowTo({ card, gone }: { card: Card; gone: number | null }) {
  return (
    <>
      <ul aria-label="Weigh" className="grid gap-0.5 text-xl font-semibold">
        {card.weigh.map((line, i) => (
          <li key={i}>
            <Words of={line} />
          </li>
        ))}
      </ul>
      {card.steps.length > 0 && (
        <ol className="grid gap-2">
          {card.steps.map((step) => (
            <li key={step.does} aria-current={isNow(step, gone) ? 'step' : undefined} className={`flex items-center gap-3 rounded-lg px-2 py-1 text-lg ${isNow(step, gone) ? 'bg-panel font-bold' : ''}`}>
              {step.swatch ? <Swatch looks={step.swatch} /> : <span className="w-[72px] shrink-0" aria-hidden="true" />}
              <span className="min-w-0 flex-1 leading-snug">{step.does}</span>
              {step.to_min !== null && (
                <span className="shrink-0 text-base text-quiet tabular-nums">
                  {step.from_min}–{step.to_min} min
                </span>
              )}
            </li>
          ))}
        </ol>
      )}
      {card.how && <p className="text-lg leading-snug">{card.how}</p>}
      <p className="leading-snug text-quiet">
        {card.minds.map((line, i) => (
          <span key={i}>
            <Words of={line} />{' '}
          </span>
        ))}
      </p>
    </>
  )
}

/** How long it has been on, and how long it takes. */
function Clock({ gone, takes }: { gone: number; takes: number | null }) {
  const minutes = Math.max(Math.floor(gone), 0)
  const done = takes !== null && gone >= takes
  return (
    <p role="timer" className={`text-xl font-bold tabular-nums ${done ? 'text-heat' : ''}`}>
      {minutes} min{takes !== null && ` of ${takes}`}
    </p>
  )
}

/** Whether its clock stands within a step. */
function isNow({ from_min, to_min }: Card['steps'][number], gone: number | null): boolean {
  return gone !== null && from_min !== null && to_min !== null && gone >= from_min && gone < to_min
}
