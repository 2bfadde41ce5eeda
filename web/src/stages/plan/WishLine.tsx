import type { Problem } from '../../api/client'
import { useLists } from '../../api/lists'
import type { Batch, Routes } from '../../api/types'
import { Ask, AskForm, Wrong } from '../../shared/Ask'
import { Rest } from '../../shared/Rest'
import { useExample, useSay } from '../../shared/units'
import { Spoon } from '../../figures/Spoon'
import { Explain } from '../../shared/Explain'
import { Choice } from '../../ui/Choice'
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
  /** The ways are those of this wish, and not of the one before it. */
  answered: boolean
  wrong: Problem | null
}

/** The fields by which an amount may be told, for what is said of it. */
const AMOUNT_FIELDS = ['amount', 'volume_ml', 'share', 'gone_ml', 'gross_g', 'at_salt_percent', 'portions', 'portion_ml', 'people'] as const

/** What may be written where the amount is asked for. */
const EXAMPLES = [
  'Also: half, by a third, leave a third, boil off 400\u00a0ml, 2.4\u00a0kg on the scale, 0.9\u00a0% salt, 20\u00a0min, for\u00a08, “600\u00a0ml, syrupy”.',
  'Also: half, by a third, leave a third, boil off 2\u00a0cups, 5\u00a0lb on the scale, 0.9\u00a0% salt, 20\u00a0min, for\u00a08, “2\u00a0cups, syrupy”.',
] as const

const OR_AT = 'Or a time of the clock: 20:00, half past seven.'

/** What is wanted: a line of values, each to be tapped and said otherwise. */
export function WishLine({ wish, change, assumed, batch, routes, answered, wrong }: Props) {
  const eg = useExample()
  const say = useSay()
  const { dishes, avoided, salt_words: salts } = useLists()
  // The amount may name the step in words, too ("600 ml, syrupy"); who then taps another takes the words back.
  const body = answered && routes ? String(routes.body) : wish.body
  const step = batch.ladder[Number(body)]
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
  return (
    <section aria-label="What you want">
      <div className="grid grid-cols-3 gap-x-1 max-sm:[&_button>span:last-child]:line-clamp-1 sm:flex sm:flex-wrap sm:divide-x sm:divide-line sm:*:px-3 sm:*:first:pl-0">
        <AskForm label="people" assumed={assumed} said={byPeople ? wish.people : 'any'} wrong={byPeople && Boolean(wrongs.amount)}>
          <TextField
            label="For how many"
            inputMode="numeric"
            value={wish.people}
            onChange={(people) => change({ by: 'people', people })}
            error={byPeople ? wrongs.amount : undefined}
            hint="One helping more for the pot."
            autoComplete="off"
          />
        </AskForm>
        <Ask label="over" assumed={assumed} said={byPeople ? (dishes.find(({ key }) => key === wish.over)?.label ?? '') : 'anything'}>
          {(close) => (
            <Choice
              label="Poured over"
              layout="stack"
              onAgain={close}
              value={byPeople ? wish.over : undefined}
              onChange={(over) => {
                change({ by: 'people', over, body: String(dishes.find((dish) => dish.key === over)?.body ?? wish.body) })
                close()
              }}
              options={dishes.map((dish) => ({ value: dish.key as string, label: dish.label, hint: `${say(dish.helping)} each` }))}
            />
          )}
        </Ask>
        <AskForm label="makes" assumed={assumed || byPeople} said={say(makes)} wrong={!byPeople && Boolean(wrongs.amount)}>
          <TextField
            label="Finished sauce"
            value={byPeople ? say(makes) : wish.amount}
            onChange={(amount) => change({ by: 'amount', amount })}
            error={byPeople ? undefined : wrongs.amount}
            hint={routes?.told ? say(routes.told) : eg(...EXAMPLES)}
            autoComplete="off"
          />
        </AskForm>
        <Ask
          label="how thick"
          assumed={assumed}
          said={
            <span className="inline-flex items-center gap-1.5 align-top">
              <span className="-my-2.5"><Spoon step={Number(body)} size={24} /></span>
              {step?.everyday}
            </span>
          }
          wrong={Boolean(wrongs.body)}
        >
          {(close) => (
            <>
            <Choice
              label="How thick"
              layout="stack"
              onAgain={close}
              value={body}
              onChange={(next) => {
                change(body === wish.body ? { body: next } : { body: next, amount: say(makes) })
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
            <Explain of="body">What is body?</Explain>
            </>
          )}
        </Ask>
        <AskForm label="how salty" assumed={assumed} ink="text-salt" said={salt ? salt.label : wish.salt} wrong={Boolean(wrongs.salt ?? wrongs.ceiling)}>
          <div className="grid gap-3">
            <Explain of="salt">Salt in per cent?</Explain>
            <Choice
              label="Salt by weight"
              layout="pairs"
              value={salt?.key}
              onChange={(key) => change({ salt: `${salts.find((one) => one.key === key)?.percent.toFixed(2) ?? wish.salt} %` })}
              options={salts.filter(({ key }) => key !== 'too_salty').map(({ key, label, percent }) => ({ value: key, label, hint: `${percent.toFixed(1)} %` }))}
            />
            <div className="grid grid-cols-2 items-start gap-2">
              <TextField label="Salt you like" value={wish.salt} onChange={(next) => change({ salt: next })} error={wrongs.salt} autoComplete="off" />
              <TextField label="Too salty at" hint="Or sodium in a helping: 300 mg." value={wish.ceiling} onChange={(ceiling) => change({ ceiling })} error={wrongs.ceiling} autoComplete="off" />
            </div>
          </div>
        </AskForm>
        <AskForm label="ready" assumed={assumed} said={wish.minutes.trim() || 'any time'} wrong={Boolean(wrongs.minutes)}>
          <TextField label="Ready in, or at" placeholder="45 min" hint={OR_AT} value={wish.minutes} onChange={(minutes) => change({ minutes })} error={wrongs.minutes} autoComplete="off" />
        </AskForm>
        <AskForm
          label="without"
          assumed={assumed}
          said={wish.avoid.length === 0 ? 'nothing' : avoided.filter(({ key }) => wish.avoid.includes(key)).map(({ label }) => label).join(', ')}
        >
          <div role="group" aria-label="Somebody must not have" className="flex flex-wrap gap-1.5">
            <p className="w-full text-quiet">Must anyone do without something?</p>
            {avoided.map(({ key, label }) => {
              const out = wish.avoid.includes(key)
              const avoid = out ? wish.avoid.filter((other) => other !== key) : [...wish.avoid, key]
              return <Toggle key={key} label={label} on={out} onTap={() => change({ avoid })} />
            })}
          </div>
        </AskForm>
      </div>
      <Wrong texts={Object.values(wrongs)} />
      <Rest problem={wrong} beside={[...AMOUNT_FIELDS, 'minutes', 'body', 'salt_percent', 'ceiling_percent']} />
    </section>
  )
}
