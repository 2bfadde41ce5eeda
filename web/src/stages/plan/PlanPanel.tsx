import { useEffect, useState } from 'react'
import { useLists, useRoutes, type Batch, type Payload, type Route, type Said, type Wanted } from '../../api/hooks'
import { useSay } from '../../shared/units'
import { TradeChart } from '../../figures/TradeChart'
import { Choice } from '../../ui/Choice'
import { TextField } from '../../ui/TextField'
import { Toggle } from '../../ui/Toggle'
import { Unfold } from '../../ui/Unfold'
import { useSettled } from '../../shared/useSettled'
import { RouteCard } from './RouteCard'
import { useBench } from '../useBench'

interface Wish {
  by: 'people' | 'amount'
  people: string
  over: string
  amount: string
  /** Where the volume is being dragged, ahead of the server's answer. */
  draggedMl: number | null
  minutes: string
  body: string
  salt: string
  ceiling: string
  fat: number
  avoid: Wanted['avoid']
}

function wishOf(batch: Batch, say: (of: Said) => string): Wish {
  const wanted = batch.wanted ?? batch.suggested
  return {
    by: wanted.by_people ? 'people' : 'amount',
    people: String(wanted.people),
    over: wanted.over,
    amount: say(wanted.said),
    draggedMl: null,
    minutes: wanted.minutes === null ? '' : `${wanted.minutes} min`,
    body: String(wanted.body),
    salt: `${wanted.salt_percent.toFixed(2)} %`,
    ceiling: `${wanted.ceiling_percent.toFixed(2)} %`,
    fat: wanted.fat_g_per_100_ml,
    avoid: wanted.avoid,
  }
}

function wantedOf(wish: Wish): Wanted {
  return {
    kind: 'wanted',
    ...(wish.by === 'people' ? { amount: `${wish.people} people`, over: wish.over as Wanted['over'] } : { amount: wish.amount }),
    ...(wish.minutes.trim() && { minutes: wish.minutes }),
    body: Number(wish.body),
    salt_percent: wish.salt,
    ceiling_percent: wish.ceiling,
    fat_g_per_100_ml: wish.fat,
    avoid: wish.avoid,
  }
}

/** What may be written where the amount is asked for. */
const EXAMPLES = 'Also: half, 2.4\u00a0kg on the scale, 0.9\u00a0% salt, boiled down for 20\u00a0min, 8 portions of 60\u00a0ml.'

/** The fields by which an amount may be told, for what is said of it. */
const AMOUNT_FIELDS = ['amount', 'volume_ml', 'share', 'gross_g', 'at_salt_percent', 'portions', 'portion_ml', 'people'] as const

/** What is wanted, what each volume costs, and the ways there. */
export default function PlanPanel() {
  const { batch, onDraft, onRecord, problem } = useBench()
  const say = useSay()
  const [asItWas] = useState(() => wishOf(batch, say))
  const [wish, setWish] = useState(asItWas)
  useEffect(() => {
    onDraft(wish === asItWas ? null : wantedOf(wish))
    return () => onDraft(null)
  }, [wish, asItWas, onDraft])
  const wanted = useSettled(wantedOf(wish), 60, JSON.stringify(wish))
  const routes = useRoutes(batch.id, batch.last_seq, wanted)
  const data = routes.data
  const wrong = routes.error ?? problem
  const change = (part: Partial<Wish>) => setWish({ ...wish, draggedMl: null, ...part })
  const { schools, dishes, avoided, salt_words: salts } = useLists()
  const binder = schools.find((s) => s.key === data?.routes.find((r) => r.kind === batch.chosen)?.school) ?? schools[0]
  const least = data?.least
  const most = data?.most
  const now = data?.wanted
  const ways = data?.routes ?? []
  const readyIn = <TextField label="Ready in" placeholder="45 min" value={wish.minutes} onChange={(minutes) => change({ minutes })} error={wrong?.at('minutes')} autoComplete="off" />
  const card = (route: Route) => (
    <RouteCard
      key={route.kind}
      route={route}
      chosen={batch.chosen === route.kind}
      busy={routes.isError || routes.isPlaceholderData}
      onChoose={() => onRecord([...(route.first as unknown as Payload[]), wanted, { kind: 'chosen', route: route.kind }])}
    />
  )
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-x-8 gap-y-5 lg:grid-cols-[20rem_1fr]">
      <section aria-label="What you want" className="grid content-start gap-4">
        <h2 className="sr-only">What you want</h2>
        <Choice
          label="How much"
          hideLabel
          value={wish.by}
          onChange={(by) => change({ by })}
          options={[
            { value: 'people', label: 'For people' },
            { value: 'amount', label: 'An amount' },
          ]}
        />
        {wish.by === 'people' ? (
          <>
            <div className="grid grid-cols-2 gap-2">
              <TextField label="For how many" inputMode="numeric" value={wish.people} onChange={(people) => change({ people })} error={wrong?.at('people', 'amount')} autoComplete="off" />
              {readyIn}
            </div>
            <Choice
              label="Poured over"
              layout="pairs"
              value={wish.over}
              onChange={(over) => change({ over, body: String(dishes.find((dish) => dish.key === over)?.body ?? wish.body) })}
              options={dishes.map((dish) => ({ value: dish.key as string, label: dish.label }))}
            />
            {now && (
              <p className="-mt-2 text-quiet">
                {batch.wanted === null ? 'Taken for granted so far: ' : ''}
                {say(now)}, one helping for the pot.
              </p>
            )}
          </>
        ) : (
          <div className="grid grid-cols-2 gap-2">
            <TextField className="col-span-2" label="Finished sauce" value={wish.amount} onChange={(amount) => change({ amount })} error={wrong?.at(...AMOUNT_FIELDS)} autoComplete="off" />
            <p className="col-span-2 text-sm text-quiet">{now ? `That is ${say(now)}. ` : ''}{EXAMPLES}</p>
            {readyIn}
          </div>
        )}
        <Choice
          label="How thick"
          layout="pairs"
          value={wish.body}
          onChange={(body) => change({ body })}
          options={batch.ladder.map((step) => ({ value: String(step.index), label: step.word }))}
        />
        <p className="-mt-2 text-quiet">{batch.ladder[Number(wish.body)]?.does}</p>
        <div className="grid grid-cols-2 gap-2">
          <TextField label="Salt you like" value={wish.salt} onChange={(salt) => change({ salt })} error={wrong?.at('salt_percent')} autoComplete="off" />
          <TextField label="Too salty at" value={wish.ceiling} onChange={(ceiling) => change({ ceiling })} error={wrong?.at('ceiling_percent')} autoComplete="off" />
        </div>
        <Unfold
          label="what somebody must not have"
          summary={
            <span className="inline-flex min-h-12 items-center font-semibold underline">
              {wish.avoid.length === 0 ? 'Must anyone do without something?' : `Without ${avoided.filter(({ key }) => wish.avoid.includes(key)).map(({ label }) => label).join(', ')}`}
            </span>
          }
        >
          <div role="group" aria-label="Somebody must not have" className="flex flex-wrap gap-1.5 pt-1">
            {avoided.map(({ key, label }) => {
              const out = wish.avoid.includes(key)
              const avoid = out ? wish.avoid.filter((other) => other !== key) : [...wish.avoid, key]
              return <Toggle key={key} label={label} on={out} onTap={() => change({ avoid })} />
            })}
          </div>
        </Unfold>
        <p className="text-sm text-quiet">Salt by weight: {salts.map(({ label, percent }) => `${label} ${percent.toFixed(1)}\u00a0%`).join(', ')}.</p>
      </section>
      <section aria-label="Ways there" className={`grid min-w-0 content-start gap-4 ${routes.isError ? 'opacity-50' : ''}`}>
        <h2 className="sr-only">Ways there</h2>
        {data && now && least && most && data.trade.length > 1 && (
          <TradeChart
            points={data.trade.map((p) => ({ volumeMl: p.volume.value, saltPercent: p.salt_percent, flourG: (binder && p.dry_g[binder.key]) ?? 0 }))}
            marks={data.routes.map((r) => ({ volumeMl: r.volume.value, saltPercent: r.salt_before.best, label: r.label, feasible: r.feasible }))}
            volumeMl={wish.draggedMl ?? now.value}
            volumeLabel={say(now)}
            saltWanted={data.salt_percent}
            saltCeiling={data.ceiling_percent}
            binder={binder?.dry ?? ''}
            onVolume={(ml) => change({ by: 'amount', amount: `${ml} ml`, draggedMl: ml })}
            ticks={data.trade.filter((_, i) => i % 4 === 0).map((p) => ({ ml: p.volume.value, label: say(p.volume) }))}
          />
        )}
        {wrong && Object.keys(wrong.fields).length === 0 && <p role="alert" className="font-medium text-heat">{wrong.message}</p>}
        <ul className="grid gap-3 md:grid-cols-2">{ways.filter((r) => r.feasible).map(card)}</ul>
        {data && !ways.some((r) => r.feasible) && (
          <p className="text-lg font-medium text-heat">No way leads there from this pot. Ask for another amount, body or salt.</p>
        )}
        {ways.some((r) => !r.feasible) && (
          <Unfold
            label="the ways that cannot be taken"
            summary={<span className="inline-flex min-h-12 items-center font-semibold underline">{ways.filter((r) => !r.feasible).length} ways that this pot does not allow, and why</span>}
          >
            <ul className="grid gap-1 pt-1">
              {ways
                .filter((r) => !r.feasible)
                .map((route) => (
                  <li key={route.kind} aria-label={route.label}>
                    <span className="font-semibold">{route.label}:</span> {route.reason && say(route.reason)}
                  </li>
                ))}
            </ul>
          </Unfold>
        )}
      </section>
    </div>
  )
}
