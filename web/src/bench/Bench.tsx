import { useQueryClient } from '@tanstack/react-query'
import { Suspense, use, useEffect, useRef, useState } from 'react'
import { isWhole, type Batch } from '../api/types'
import { keys } from '../api/keys'
import { useAppend, useBatch } from '../api/batches'
import { useListed } from '../api/lists'
import { Header } from '../shared/Header'
import { clock } from '../shared/clock'
import { Notice } from '../shared/Notice'
import { Skeleton } from '../shared/Skeleton'
import { fetchStages, PlanPanel, STAGES } from '../stages/registry'
import { BenchContext, type Proposal } from '../stages/useBench'
import { useAwake } from '../shared/useAwake'
import { useAlarm } from '../shared/useAlarm'
import { useLetters } from '../shared/letters'
import { Shell } from '../shared/surroundings'
import { useNow } from '../shared/useNow'
import { useSay } from '../shared/units'
import { PotSection } from '../figures/PotSection'
import { Ribbon } from '../figures/Ribbon'
import { useStands } from '../shared/useStands'
import { DeviceLine } from './DeviceLine'
import { NowLine } from './NowLine'
import { LooksOn } from '../ui/LooksOn'
import { useRights } from '../api/rights'
import type { SheetName } from './OpenSheet'
import { useRecord } from './useRecord'
import { useView } from './useView'
import { part } from '../ui/part'

const loadSheets = () => import('./OpenSheet')
const OpenSheet = part(loadSheets)
// Rare, and they bring the whole start with them.
const Correct = part(() => import('./Correct'))
const Above = part(() => import('./Above'))
const OneSheet = part(() => import('./OneSheet'))
const BatchNotices = part(() => import('./BatchNotices'))
const Sleeps = part(() => import('./Sleeps'))
const Unreadable = part(() => import('./Unreadable'))

/** One batch at the stove: its ribbon, its pot, the stage that is open, and what to do now. */
export function Bench({ id, view: asked }: { id: string; view: string | undefined }) {
  const batch = useBatch(id)
  const queries = useQueryClient()
  // What was kept from before a reload is only drawn until the server has said how it stands by now.
  const [old] = useState(() => queries.getQueryState(keys.batch(id))?.isInvalidated ?? false)
  // Asked for together: what is offered must be there before the server is gone.
  const listed = useListed()
  if (batch.isError && !batch.data) {
    return <Notice title={batch.error.status === 404 ? 'No such batch' : 'No answer'} text={batch.error.message} onRetry={() => void batch.refetch()} />
  }
  if (!batch.data || !listed) return <Skeleton />
  if (!isWhole(batch.data)) {
    return (
      <Suspense>
        <Unreadable batch={batch.data} />
      </Suspense>
    )
  }
  return <Open batch={batch.data} asked={asked} offline={batch.isError} settled={!old || batch.isFetchedAfterMount} />
}

function Open({ batch, asked, offline, settled }: { batch: Batch; asked: string | undefined; offline: boolean; settled: boolean }) {
  const say = useSay()
  const append = useAppend(batch.id)
  const [sheet, setSheet] = useState<SheetName | null>(null)
  const [proposal, setProposal] = useState<Proposal | null>(null)
  const { view, open, lead, panel } = useView(batch, asked, settled, append)
  const { records } = useRights()
  const { ask } = use(Shell)
  const { record, last, undo } = useRecord(batch, append)
  const now = useNow()
  // Between readings the level is where the forecast says, dotted until a reading confirms it.
  const stands = useStands(batch)
  const due = stands.there ? null : (stands.look ?? (batch.act.look_at === null ? null : Date.parse(batch.act.look_at)))
  const alarm = useAlarm(due, batch.act.quiet && stands.look === null, batch.act.sound, () => batch.act.look_at && append.mutate({ kind: 'hushed', due: batch.act.look_at }))
  const sleeps = useAwake(batch.act.doing === 'boil')
  // The keyboard goes on at the sentence: from the start, after every act, and when a sheet was closed by one.
  const bar = useRef<HTMLElement>(null)
  useEffect(() => {
    if (sheet === null) bar.current?.focus({ preventScroll: true })
  }, [append.data, sheet])
  useEffect(() => fetchStages(loadSheets), [])
  useLetters({
    l: () => setSheet('log'),
    s: () => open('skim'),
    p: () => open('plan'),
    ...(records && {
      r: () => setSheet('reading'),
      a: () => setSheet('add'),
      t: () => setSheet('taste'),
      n: () => setSheet('note'),
      u: undo,
    }),
  })
  useEffect(() => {
    document.title = alarm.ringing ? `Look now: ${batch.name}` : `${batch.name} · Spissus`
    return () => {
      document.title = 'Spissus'
    }
  }, [batch.name, alarm.ringing])

  if (view === 'correct') {
    return (
      <Suspense>
        <Correct batch={batch} onClose={() => open('strain')} />
      </Suspense>
    )
  }
  if (view === 'sheet' || view === 'pass' || view === 'story') {
    return (
      <Suspense>
        <OneSheet batch={batch} view={view} />
      </Suspense>
    )
  }
  const wish = batch.wanted
  const stage = STAGES.find((one) => one.stage === view)
  const Panel = stage?.Panel
  const parts = { batch, view, busy: append.isPending, problem: append.error, proposal, onRecord: record, onOpen: open, onPropose: setProposal }
  return (
    <BenchContext value={parts}>
      <div className="flex min-h-dvh flex-col">
        <Header title={batch.name} detail={`${batch.pan.name} · ${batch.burner}`}>
          <button type="button" className="pill" onClick={() => open('plan')} aria-current={view === 'plan' ? 'page' : undefined}>
            {wish ? (
              <>
                {say(wish.amount)}
                <span className="hidden text-quiet sm:inline">
                  {batch.ladder[wish.body]?.everyday} · {wish.salt_percent.toFixed(2)} %
                </span>
              </>
            ) : (
              <>
                <span className="sm:hidden">Your wish</span>
                <span className="hidden sm:inline">What do you want?</span>
              </>
            )}
          </button>
          <button type="button" className="pill hidden md:inline-flex" onClick={() => setSheet('log')}>
            Log <span className="text-quiet">{batch.log.length}</span>
          </button>
          <button type="button" className="pill hidden lg:inline-flex" aria-label="What does it mean?" onClick={() => ask('explained:')}>
            ?
          </button>
        </Header>
        <div className="px-4 md:px-7">
          <Ribbon
            stages={STAGES}
            stretches={batch.ribbon.map((s) => ({
              ...s,
              volume: say(s.liquid),
              salt: `${s.salt_percent.toFixed(2)} %`,
              fat: s.fat && say(s.fat),
              vapour: s.vapour && say(s.vapour),
              added: s.added && say(s.added),
            }))}
            ahead={batch.wanted ? 'Pick a way, and the rest is drawn here.' : 'Say what you want, and the rest is drawn here.'}
            next={batch.finished ? null : batch.act.stage}
            open={view === 'plan' ? null : view}
            onOpen={open}
            clock={clock(now)}
            slim={view === 'plan'}
          />
        </div>
        {offline && stands.waiting === 0 && (
          <p role="status" className="mx-4 rounded-xl border-2 border-heat px-4 py-2 font-medium md:mx-7">
            The server does not answer. This is how the pot stood last.
          </p>
        )}
        {sleeps && (
          <Suspense>
            <Sleeps />
          </Suspense>
        )}
        {(batch.missing.length > 0 || batch.log.some((entry) => entry.told !== null && !entry.struck)) && (
          <Suspense>
            <BatchNotices missing={batch.missing} log={batch.log} onRecord={record} />
          </Suspense>
        )}
        <div className="flex flex-wrap gap-x-6 px-4 md:px-7">
          {batch.devices.map((device) => (
            <DeviceLine key={device.name} device={device} onRecord={record} />
          ))}
        </div>
        <main ref={panel} tabIndex={-1} className="flex-1 px-4 pt-3 pb-6 outline-none md:px-7">
          <LooksOn value={!records}>
          <Suspense>
            <Above batch={batch} view={view} now={now} onRecord={record} />
          </Suspense>
          <Suspense>
            {view === 'plan' || !Panel ? (
              // A wish that was kept is begun from anew.
              <PlanPanel key={batch.log.findLast((entry) => entry.kind === 'wanted' && !entry.struck)?.seq} />
            ) : stage.wide ? (
              <section aria-label={stage.label}>
                <Panel />
              </section>
            ) : (
              <div className={`grid grid-cols-[minmax(0,1fr)] gap-x-8 gap-y-4 ${view === 'reduce' ? 'lg:grid-cols-[23rem_minmax(0,1fr)] 2xl:grid-cols-[34rem_minmax(0,1fr)]' : 'lg:grid-cols-[28rem_minmax(0,1fr)] 2xl:grid-cols-[36rem_minmax(0,1fr)]'}`}>
                <section aria-label="The pot" className="order-2 min-w-0 lg:order-1">
                  <PotSection
                    pan={batch.pan}
                    depthMm={stands.now?.depthMm ?? batch.pot.depth.value}
                    foretold={stands.now !== null}
                    fatMm={batch.pot.fat_depth.value}
                    tone={batch.pot.tone}
                    steaming={batch.act.doing === 'boil'}
                    marks={[
                      ...batch.marks.map((mark) =>
                        mark.kind === 'now' && stands.now
                          ? { kind: mark.kind, depthMm: stands.now.depthMm, label: say(stands.now.point.reads.dip) }
                          : { kind: mark.kind, depthMm: mark.depth.value, label: say(mark.depth) },
                      ),
                      ...stands.kept.slice(-1).map(({ depthMm, label }) => ({ kind: 'kept' as const, depthMm, label })),
                    ]}
                    height={(view === 'reduce' ? 330 : 400) + Math.min(Math.max(window.innerHeight - 850, 0), 200)}
                  />
                  <p className="text-quiet">
                    {batch.pan.name} · {batch.burner}
                  </p>
                  {stage && <stage.Beneath />}
                </section>
                <section aria-label={stage?.label} className="order-1 min-w-0 lg:order-2">
                  <Panel />
                </section>
              </div>
            )}
          </Suspense>
          </LooksOn>
        </main>
        <NowLine
          bar={bar}
          problem={sheet === null ? append.error : null}
          onRecord={(payload) => {
            // What the bar asks for leads on, whatever is open.
            lead()
            void record(payload)
          }}
          onSheet={setSheet}
          alarm={alarm}
          stands={stands}
          undo={last ? { label: say(last.text), act: undo } : null}
        />
        {sheet && (
          <LooksOn value={!records}>
          <Suspense>
            <OpenSheet name={sheet} batch={batch} append={append} onClose={() => setSheet(null)} />
          </Suspense>
          </LooksOn>
        )}
      </div>
    </BenchContext>
  )
}
