import { useState } from 'react'
import type { Problem } from '../../api/client'
import { useLists, useRoutes, type Batch, type Payload, type Route, type Wanted } from '../../api/hooks'
import { useSay } from '../../app/units'
import { TradeChart } from '../../figures/TradeChart'
import { Choice } from '../../ui/Choice'
import { TextField } from '../../ui/TextField'
import { Unfold } from '../../ui/Unfold'
import { useSettled } from '../../app/useSettled'
import { RouteCard } from './RouteCard'

interface Props {
  batch: Batch
  onRecord: (payload: Payload | Payload[]) => void
  problem: Problem | null
}

interface Wish {
  by: 'volume' | 'portions'
  volume: string
  /** Where the volume is being dragged, ahead of the server's answer. */
  draggedMl: number | null
  portions: string
  portion: string
  body: string
  salt: string
  ceiling: string
  fat: number
}

function wishOf(batch: Batch): Wish {
  const wanted = batch.wanted ?? batch.suggested
  return {
    by: wanted.portions ? 'portions' : 'volume',
    volume: `${Math.round(wanted.amount.value)} ml`,
    draggedMl: null,
    portions: String(wanted.portions ?? 8),
    portion: wanted.portion ? `${Math.round(wanted.portion.value)} ml` : '60 ml',
    body: String(wanted.body),
    salt: `${wanted.salt_percent.toFixed(2)} %`,
    ceiling: `${wanted.ceiling_percent.toFixed(2)} %`,
    fat: wanted.fat_g_per_100_ml,
  }
}

function wantedOf(wish: Wish): Wanted {
  return {
    kind: 'wanted',
    ...(wish.by === 'volume' ? { volume_ml: wish.volume } : { portions: Number(wish.portions) || 0, portion_ml: wish.portion }),
    body: Number(wish.body),
    salt_percent: wish.salt,
    ceiling_percent: wish.ceiling,
    fat_g_per_100_ml: wish.fat,
  }
}

/** What is wanted, what each volume costs, and the ways there. */
export function PlanPanel({ batch, onRecord, problem }: Props) {
  const say = useSay()
  const [wish, setWish] = useState(() => wishOf(batch))
  const wanted = useSettled(wantedOf(wish), 60, JSON.stringify(wish))
  const routes = useRoutes(batch.id, batch.last_seq, wanted)
  const data = routes.data
  const wrong = routes.error ?? problem
  const change = (part: Partial<Wish>) => setWish({ ...wish, draggedMl: null, ...part })
  const { schools } = useLists()
  const binder = schools.find((s) => s.key === data?.routes.find((r) => r.kind === batch.chosen)?.school) ?? schools[0]
  const least = data?.least
  const most = data?.most
  const now = data?.wanted
  const ways = data?.routes ?? []
  const card = (route: Route) => (
    <RouteCard
      key={route.kind}
      route={route}
      chosen={batch.chosen === route.kind}
      busy={routes.isError || routes.isPlaceholderData}
      onChoose={() => onRecord([wanted, { kind: 'chosen', route: route.kind }])}
    />
  )
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-x-8 gap-y-5 lg:grid-cols-[20rem_1fr]">
      <section aria-label="What you want" className="grid content-start gap-4">
        <h2 className="sr-only">What you want</h2>
        <Choice
          label="How much"
          value={wish.by}
          onChange={(by) => change({ by })}
          options={[
            { value: 'volume', label: 'Volume' },
            { value: 'portions', label: 'Portions' },
          ]}
        />
        {wish.by === 'volume' ? (
          <TextField label="Finished sauce" hideLabel value={wish.volume} onChange={(volume) => change({ volume })} error={wrong?.at('volume_ml')} autoComplete="off" />
        ) : (
          <div className="grid grid-cols-2 gap-2">
            <TextField label="Portions" inputMode="numeric" value={wish.portions} onChange={(portions) => change({ portions })} error={wrong?.at('portions', 'volume_ml')} autoComplete="off" />
            <TextField label="each" value={wish.portion} onChange={(portion) => change({ portion })} error={wrong?.at('portion_ml')} autoComplete="off" />
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
        <p className="text-sm text-quiet">Usual by weight: mild 0.7 %, usual 0.9 %, bold 1.1 %. Past 1.3 % most diners call it salty.</p>
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
            onVolume={(ml) => change({ by: 'volume', volume: `${ml} ml`, draggedMl: ml })}
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
