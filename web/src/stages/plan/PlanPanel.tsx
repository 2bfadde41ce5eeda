import { Suspense, useEffect, useMemo, useState } from 'react'
import { useRoutes, type SchoolKey } from '../../api/ways'
import type { Payload, Route } from '../../api/types'
import { useSay } from '../../shared/units'
import { useKept } from '../../shared/useKept'
import { FallingPot, type FallFlag } from '../../figures/FallingPot'
import { Unfold } from '../../ui/Unfold'
import { useBench } from '../useBench'
import { WayCard } from './WayCard'
import { wantedOf, wishOf, type Wish } from './wish'
import { WishLine } from './WishLine'
import { part } from '../../ui/part'

const SchoolsSheet = part(() => import('./SchoolsSheet'))

/** What is wanted, and the ways there: one picture of the pot as it would fall, and the way in hand. */
export default function PlanPanel() {
  const { batch, onPropose, problem } = useBench()
  const say = useSay()
  const agreed = batch.log.findLast((entry) => entry.kind === 'wanted' && !entry.struck)?.seq ?? 0
  const [said, setSaid] = useKept<Wish>(`wish-${batch.id}-${agreed}`)
  const asItWas = useMemo(() => wishOf(batch, say), [batch, say])
  const wish = said ?? asItWas
  const wanted = useMemo(() => wantedOf(wish), [wish])
  const [school, setSchool] = useState<SchoolKey | null>(null)
  const [choosing, setChoosing] = useState(false)
  const routes = useRoutes(batch.id, batch.last_seq, wanted, school)
  const [picked, setPicked] = useState<Route['kind'] | null>(null)
  // A wish that cannot be met keeps the last picture.
  const [last, setLast] = useState(routes.data)
  if (routes.data && routes.data !== last) setLast(routes.data)
  const data = routes.data ?? last
  const wrong = routes.error ?? problem
  const stale = routes.isError
  const ways = useMemo(() => data?.routes ?? [], [data])
  const first = ways.find((r) => r.kind === batch.chosen) ?? ways[0]
  const able = ways.filter((r) => r.feasible)
  // Ways that come to the same are named once: the one that was picked may go by another name here.
  const inHand = ways.find((r) => r.kind === picked) ?? able.find((r) => picked !== null && r.school === school) ?? first
  const change = (part: Partial<Wish>) => setSaid({ ...wish, ...part })
  const drag = (ml: number) => {
    change({ by: 'amount', amount: `${ml} ml` })
    // What is dragged is the amount: the way that makes it is in hand then.
    const makesIt = inHand?.to_amount ? inHand : [...able, ...ways].find((r) => r.to_amount)
    if (makesIt) setPicked(makesIt.kind)
  }
  const next = able[(able.findIndex((r) => r.kind === inHand?.kind) + 1) % Math.max(able.length, 1)]
  const settled = !routes.isPlaceholderData && !stale
  // What was wished already is not wished again with the way.
  const wished = said === null && batch.wanted !== null
  useEffect(() => {
    if (!inHand) return
    onPropose({
      said: inHand.feasible ? inHand.said : (inHand.reason ?? inHand.said),
      changed: said !== null || (picked !== null && picked !== first?.kind),
      wish: said !== null && settled ? wanted : null,
      take: inHand.feasible && settled ? [...(inHand.first as unknown as Payload[]), ...(wished ? [] : [wanted]), { kind: 'chosen', route: inHand.kind, ...(inHand.own ? { thickener: inHand.own } : {}) }] : null,
      next: next && next.kind !== inHand.kind ? () => setPicked(next.kind) : null,
      wrong: stale,
    })
  }, [inHand, said, wished, picked, first, settled, stale, wanted, next, onPropose])
  useEffect(() => () => onPropose(null), [onPropose])

  const groups = groupsOf(ways, inHand)
  const flags: FallFlag[] = groups.flatMap(({ face }) => {
    const into = face.take ? ['take', say(face.take)] : face.let_down ? ['add', say(face.let_down)] : []
    const beside = face.beside && { ml: face.beside.value, added: face.let_down?.value ?? 0, into }
    // Of what cannot be taken, what would be too salty stands where that is seen; the rest is told below.
    if (!face.feasible && face.kind !== inHand?.kind && (beside || !face.too_salty)) return []
    return [
      {
        key: face.kind,
        name: face.feasible ? `${face.keep && !face.leave ? 'thicken a part' : face.flag} → ${say(face.volume)}` : face.flag,
        note: face.feasible
          ? `salt ${face.salt_after.best.toFixed(2)} %, ${say(face.takes)}, ${face.times.toFixed(1)} ×`
          : face.too_salty
            ? `${face.salt_before.best.toFixed(1)} %: too salty`
            : 'cannot be taken',
        first: face.kind === first?.kind,
        leftMl: face.boil_to.value,
        beside,
        feasible: face.feasible,
      },
    ]
  })
  const group = groups.find(({ face }) => face.kind === inHand?.kind)
  const barred = ways.filter((r) => !r.feasible)
  const dryName = (inHand?.dry_name ? inHand : able.find((r) => r.dry_name))?.dry_name ?? ''
  const heaped = inHand?.school ?? able[0]?.school ?? ways.find((r) => r.school)?.school ?? ''
  const heapOf = (dry: Route['dry'] | undefined, name: string) => (dry && dry.value > 0 ? `${say(dry)} ${name}` : 'no thickener')
  const comesTo = inHand && `${say(inHand.boil_to)}: makes ${say(inHand.volume)}, salt ${inHand.salt_after.best.toFixed(2)} %, ${heapOf(inHand.dry, dryName)}`
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-2">
      <h2 className="sr-only">What you want, and the ways there</h2>
      <WishLine wish={wish} change={change} assumed={batch.wanted === null && said === null} batch={batch} routes={data} answered={settled} wrong={wrong} />
      {data && inHand && (
        <div className={stale ? 'opacity-45 grayscale' : ''}>
          {data.trade.length > 1 && (
            <FallingPot
              points={data.trade.map((p) => ({
                leftMl: p.boil_to.value,
                makesMl: p.volume.value,
                tone: p.tone,
                label: say(p.boil_to),
                heap: p.dry[heaped]?.value ?? 0,
                heapLabel: heapOf(p.dry[heaped], dryName),
              }))}
              flags={flags}
              inHand={inHand.kind}
              mostMl={data.most.value}
              tooSaltyMl={data.too_salty?.value ?? null}
              tooSaltyLabel={data.too_salty && say(data.too_salty)}
              nowLabel={say(data.most)}
              handle={{ ...(inHand.beside ? { ml: data.most.value, label: say(data.most) } : { ml: inHand.boil_to.value, label: say(inHand.boil_to) }), said: comesTo ?? '' }}
              onPick={(kind) => setPicked(kind as Route['kind'])}
              onMakes={drag}
            />
          )}
          <WayCard route={inHand} wanted={wanted} settled={settled} binders={group?.members ?? []} chosen={batch.chosen === inHand.kind && inHand.own === (batch.plan?.own ?? null)} onPick={setPicked} onOthers={() => setChoosing(true)} />
        </div>
      )}
      {choosing && inHand && (
        <Suspense>
          <SchoolsSheet
            wanted={wanted}
            like={inHand}
            onPick={(school, kind) => {
              setSchool(school)
              setPicked(kind)
              setChoosing(false)
            }}
            onClose={() => setChoosing(false)}
          />
        </Suspense>
      )}
      {data && able.length === 0 && <p className="text-lg font-medium text-heat">This pot cannot make that. Ask for another amount, body or salt.</p>}
      {barred.length > 0 && (
        <Unfold
          label="the ways that cannot be taken"
          summary={<span className="inline-flex min-h-12 items-center font-semibold underline">{barred.length} ways that this pot does not allow, and why</span>}
        >
          <ul className="grid gap-1 pt-1">
            {barred.map((route) => (
              <li key={route.kind} aria-label={route.label}>
                <span className="font-semibold">{route.label}:</span> {route.reason && say(route.reason)}
              </li>
            ))}
          </ul>
        </Unfold>
      )}
    </div>
  )
}

interface Group {
  /** The one that stands for them. */
  face: Route
  members: Route[]
}

/** The ways that differ only by what binds them are one flag: that of the one in hand, or of the first that can be taken. */
function groupsOf(ways: readonly Route[], inHand: Route | undefined): Group[] {
  const groups: Group[] = []
  for (const flag of new Set(ways.map((r) => r.flag))) {
    const all = ways.filter((r) => r.flag === flag)
    const members = all.filter((r) => r.feasible)
    const face = all.find((r) => r.kind === inHand?.kind) ?? members[0] ?? all[0]
    if (face) groups.push({ face, members })
  }
  return groups
}
