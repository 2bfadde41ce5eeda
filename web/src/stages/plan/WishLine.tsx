import { useState, type ReactNode } from 'react'
import type { Problem } from '../../api/client'
import { useLists, type Batch, type Routes } from '../../api/hooks'
import { useSay } from '../../shared/units'
import { Spoon } from '../../figures/Spoon'
import { Choice } from '../../ui/Choice'
import { Button } from '../../ui/Button'
import { Popover } from '../../ui/Popover'
import { TextField } from '../../ui/TextField'
import { Toggle } from '../../ui/Toggle'
import type { Wish } from './wish'

interface Props {
  wish: Wish
  change: (part: Partial<Wish>) => void
  /** Nobody has said any of it yet. */
  assumed: boolean
  batch: Batch
  routes: Routes | undefined
  wrong: Problem | null
}

/** The fields by which an amount may be told, for what is said of it. */
const AMOUNT_FIELDS = ['amount', 'volume_ml', 'share', 'gross_g', 'at_salt_percent', 'portions', 'portion_ml', 'people'] as const

/** What may be written where the amount is asked for. */
const EXAMPLES = 'Also: half, 2.4\u00a0kg on the scale, 0.9\u00a0% salt, boiled down for 20\u00a0min, 8 portions of 60\u00a0ml.'

/** What is wanted: a line of values, each to be tapped and said otherwise. */
export function WishLine({ wish, change, assumed, batch, routes, wrong }: Props) {
  const say = useSay()
  const { dishes, avoided, salt_words: salts } = useLists()
  const step = batch.ladder[Number(wish.body)]
  const makes = routes?.wanted ?? (batch.wanted ?? batch.suggested).amount
  const byPeople = wish.by === 'people'
  const salt = salts.find(({ percent }) => `${percent.toFixed(2)} %` === wish.salt)
  const wrongs = {
    amount: wrong?.at(...AMOUNT_FIELDS),
    minutes: wrong?.at('minutes'),
    body: wrong?.at('body'),
    salt: wrong?.at('salt_percent'),
    ceiling: wrong?.at('ceiling_percent'),
  }
  const said = [wrongs.amount, wrongs.minutes, wrongs.body, wrongs.salt, wrongs.ceiling].filter(Boolean)
  const word = { assumed }
  return (
    <section aria-label="What you want">
      <div className="grid grid-cols-3 gap-x-2 sm:flex sm:flex-wrap sm:gap-x-0">
        <Value {...word} label="people" value={byPeople ? wish.people : 'any'} wrong={byPeople && Boolean(wrongs.amount)}>
          {() => (
            <TextField
              label="For how many"
              inputMode="numeric"
              value={wish.people}
              onChange={(people) => change({ by: 'people', people })}
              error={byPeople ? wrongs.amount : undefined}
              hint="One helping more for the pot."
              autoComplete="off"
            />
          )}
        </Value>
        <Value {...word} label="over" value={byPeople ? (dishes.find(({ key }) => key === wish.over)?.label ?? '') : 'anything'}>
          {(close) => (
            <Choice
              label="Poured over"
              layout="stack"
              value={byPeople ? wish.over : undefined}
              onChange={(over) => {
                change({ by: 'people', over, body: String(dishes.find((dish) => dish.key === over)?.body ?? wish.body) })
                close()
              }}
              options={dishes.map((dish) => ({ value: dish.key as string, label: dish.label, hint: `${say(dish.helping)} each` }))}
            />
          )}
        </Value>
        <Value {...word} assumed={assumed || byPeople} label="makes" value={say(makes)} wrong={!byPeople && Boolean(wrongs.amount)}>
          {() => (
            <TextField
              label="Finished sauce"
              value={byPeople ? say(makes) : wish.amount}
              onChange={(amount) => change({ by: 'amount', amount })}
              error={byPeople ? undefined : wrongs.amount}
              hint={EXAMPLES}
              autoComplete="off"
            />
          )}
        </Value>
        <Value
          {...word}
          label="how thick"
          value={
            <span className="flex items-center gap-1.5">
              <span className="-my-2"><Spoon step={Number(wish.body)} size={30} /></span>
              {step?.everyday}
            </span>
          }
          wrong={Boolean(wrongs.body)}
        >
          {(close) => (
            <Choice
              label="How thick"
              layout="stack"
              value={wish.body}
              onChange={(body) => {
                change({ body })
                close()
              }}
              options={batch.ladder.map((one) => ({
                value: String(one.index),
                label: (
                  <span className="flex items-center gap-3">
                    <Spoon step={one.index} size={44} />
                    <span>
                      {one.everyday} <span className="text-sm font-normal opacity-80">{one.trade}</span>
                      <span className="block text-sm font-normal opacity-80">{one.does}</span>
                    </span>
                  </span>
                ),
              }))}
            />
          )}
        </Value>
        <Value {...word} label="how salty" ink="text-salt" value={salt ? salt.label : wish.salt} wrong={Boolean(wrongs.salt ?? wrongs.ceiling)}>
          {() => (
            <div className="grid gap-3">
              <Choice
                label="Salt by weight"
                layout="pairs"
                value={salt?.key}
                onChange={(key) => change({ salt: `${salts.find((one) => one.key === key)?.percent.toFixed(2) ?? wish.salt} %` })}
                options={salts.map(({ key, label, percent }) => ({ value: key, label, hint: `${percent.toFixed(1)} %` }))}
              />
              <div className="grid grid-cols-2 gap-2">
                <TextField label="Salt you like" value={wish.salt} onChange={(next) => change({ salt: next })} error={wrongs.salt} autoComplete="off" />
                <TextField label="Too salty at" value={wish.ceiling} onChange={(ceiling) => change({ ceiling })} error={wrongs.ceiling} autoComplete="off" />
              </div>
            </div>
          )}
        </Value>
        <Value {...word} label="ready in" value={wish.minutes.trim() || 'any time'} wrong={Boolean(wrongs.minutes)}>
          {() => <TextField label="Ready in" placeholder="45 min" value={wish.minutes} onChange={(minutes) => change({ minutes })} error={wrongs.minutes} autoComplete="off" />}
        </Value>
        <Value
          {...word}
          label="without"
          value={wish.avoid.length === 0 ? 'nothing barred' : avoided.filter(({ key }) => wish.avoid.includes(key)).map(({ label }) => label).join(', ')}
        >
          {() => (
            <div role="group" aria-label="Somebody must not have" className="flex flex-wrap gap-1.5">
              <p className="w-full text-quiet">Must anyone do without something?</p>
              {avoided.map(({ key, label }) => {
                const out = wish.avoid.includes(key)
                const avoid = out ? wish.avoid.filter((other) => other !== key) : [...wish.avoid, key]
                return <Toggle key={key} label={label} on={out} onTap={() => change({ avoid })} />
              })}
            </div>
          )}
        </Value>
      </div>
      {said.map((text) => (
        <p key={text} role="alert" className="font-medium text-heat">
          {text}
        </p>
      ))}
    </section>
  )
}

interface ValueProps {
  label: string
  value: ReactNode
  assumed: boolean
  wrong?: boolean
  ink?: string
  children: (close: () => void) => ReactNode
}

/** A value under its name; tapped, it can be said otherwise. */
function Value({ label, value, assumed, wrong = false, ink = '', children }: ValueProps) {
  const [open, setOpen] = useState(false)
  const close = () => setOpen(false)
  return (
    <Popover
      open={open}
      onOpen={setOpen}
      label={label}
      className={`min-h-12 min-w-0 border-line px-2 py-0.5 text-left leading-tight hover:bg-panel data-[state=open]:bg-panel sm:border-r sm:px-4 sm:first:pl-0 ${wrong ? 'text-heat' : ''}`}
      trigger={
        <>
          <span className="block text-sm text-quiet">{label}</span>
          <span className={`inline-block max-w-full truncate border-b-2 text-lg sm:text-xl ${wrong ? 'border-heat font-bold' : assumed ? 'border-dotted border-quiet font-medium italic' : 'border-transparent font-bold'} ${wrong ? '' : ink}`}>{value}</span>
        </>
      }
    >
      <form
        className="grid gap-3"
        onSubmit={(event) => {
          event.preventDefault()
          close()
        }}
      >
        {children(close)}
        <Button type="submit">Done</Button>
      </form>
    </Popover>
  )
}
