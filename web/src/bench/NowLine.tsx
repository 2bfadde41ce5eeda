import { useEffect, useRef, useState, type RefObject } from 'react'
import type { Problem } from '../api/client'
import type { Answer, Batch, Payload } from '../api/types'
import type { Alarm } from '../shared/useAlarm'
import { useNow } from '../shared/useNow'
import { minutesUntil, useSay, Words } from '../shared/units'
import type { Stands } from '../shared/useStands'
import { readsAloud, speak } from '../shared/voice'
import { Button } from '../ui/Button'
import { useRights } from '../api/rights'
import { useBench, type Proposal } from '../stages/useBench'
import { useLetters } from '../shared/letters'
import type { SheetName } from './OpenSheet'

interface Props {
  bar: RefObject<HTMLElement | null>
  /** What the bar asks for leads on, whatever is open. */
  onRecord: (payload: Payload | Payload[]) => void
  problem: Problem | null
  onSheet: (sheet: SheetName) => void
  undo: { label: string; act: () => void } | null
  alarm: Alarm
  stands: Stands
}

/** The letters that open what an answer opens; `letters.tsx` listens to them. */
const LETTERS: Partial<Record<string, string>> = { plan: 'P', skim: 'S', reading: 'R', add: 'A' }

/** One sentence that says what to do and when, and the buttons that answer it. */
export function NowLine({ bar, onRecord, problem, onSheet, undo, alarm, stands }: Props) {
  const { batch, view, proposal, busy, onOpen } = useBench()
  const { records } = useRights()
  // On the plan the bar speaks the way in hand, where nothing is asked that comes before it.
  const proposed = proposal !== null && !alarm.ringing && speaksOf(batch, proposal) ? proposal : null
  // What the open stage offers itself is not offered twice, nor what was done and is kept here.
  const answers = proposed || stands.pending || !records ? [] : batch.act.answers.filter((answer) => answer.opens !== view || answer.payload)
  const give = ({ payload, opens, asks }: Answer) => {
    if (payload && !opens) onRecord(payload as Payload)
    else if (asks) onSheet(asks)
    else if (opens) onOpen(opens)
  }
  const asked = new Set(answers.map((answer) => answer.asks))
  // Two taps are never two acts: what has just come to stand there is no answer yet.
  const armed = useArmed(`${batch.last_seq} ${batch.act.kind} ${proposed?.take ? 'way' : ''} ${answers.map(({ label }) => label).join()}`)
  const held = busy || !armed
  const recorded = useRecorded(batch.last_seq, undo?.label ?? null)
  // Where every answer is as good as the others, none is in gold by itself: also of those that the open stage offers.
  const allAlike = answers.length > 1 && batch.act.answers.every(({ payload, opens }) => payload && !opens)
  const [first, ...others] = answers
  const submits = first?.payload && first.opens === view
  const gold = () => {
    if (held || !records) return
    if (proposed?.take) onRecord(proposed.take)
    else if (submits) (document.getElementById('finish') as HTMLFormElement | null)?.requestSubmit()
    else if (first && !allAlike) give(first)
  }
  const said = useRef<HTMLParagraphElement>(null)
  const sayIt = () => readsAloud() && speak(said.current?.textContent ?? '')
  useEffect(() => {
    if (alarm.ringing && readsAloud()) speak(said.current?.textContent ?? '')
  }, [alarm.ringing])
  useLetters({ enter: gold, v: sayIt })
  const button = (answer: Answer, main: boolean) => (
    <Button
      key={answer.label}
      look={main ? 'bar-main' : 'bar'}
      letter={LETTERS[answer.opens ?? answer.asks ?? '']}
      disabled={answer.payload ? held : busy}
      {...(answer.payload && answer.opens === view ? { type: 'submit', form: 'finish' } : { onClick: () => give(answer) })}
    >
      {answer.label}
    </Button>
  )
  return (
    <section
      ref={bar}
      aria-label="Now"
      tabIndex={-1}
      // A key that is held down acts once.
      onKeyDownCapture={(event) => event.repeat && (event.key === 'Enter' || event.key === ' ') && event.preventDefault()}
      className={`sticky bottom-0 z-30 px-4 py-2 text-bar-ink outline-none sm:py-3 md:px-7 lying:py-2 ${alarm.ringing ? 'flashes bg-alarm' : 'bg-bar'}`}
    >
      {problem && (
        <p role="alert" className="mb-2 font-medium text-[#ffb39c]">
          {problem.message}
        </p>
      )}
      <div className="flex flex-col">
      <div className="flex flex-wrap items-center gap-x-6 gap-y-2 sm:gap-y-3 xl:flex-nowrap lying:flex-nowrap">
        {/* What changes is told once; the minutes that run down are not news. */}
        <p role={alarm.ringing ? 'alert' : 'status'} className="sr-only">
          {stands.pending ? 'What you did is kept here.' : stands.kept.map(({ label }) => `${label}, not sent yet. `)}
          <Words of={proposed && !proposed.wrong ? proposed.said : alarm.ringing && batch.act.overdue ? batch.act.overdue : batch.act.sentence} />
        </p>
        <p ref={said} data-said="" className={`min-w-0 sm:min-w-64 flex-1 basis-full font-semibold text-balance xl:basis-0 lying:basis-0 ${alarm.ringing ? 'said-loud' : 'said'}`}>
          {!proposed ? <Sentence batch={batch} stands={stands} /> : proposed.wrong ? 'That cannot be made. The reason stands beside its word.' : <Words of={proposed.said} amounts="text-glow" />}
        </p>
        {/* On a phone one row that can be swiped: the answers first. */}
        <div data-swipes="" className={`relative flex min-w-0 gap-2 max-sm:-mx-4 max-sm:w-screen max-sm:overflow-x-auto max-sm:px-4 max-sm:*:shrink-0 sm:flex-wrap xl:justify-end lying:max-w-[22rem] lying:flex-nowrap lying:overflow-x-auto lying:*:shrink-0 ${answers.length > MANY ? 'xl:max-w-[40rem]' : 'xl:max-w-[31rem]'} ${armed ? '' : 'pointer-events-none'}`}>
          {records && proposed?.take && (
            <Button look="bar-main" disabled={held} onClick={() => proposed.take && onRecord(proposed.take)}>
              Take this way
            </Button>
          )}
          {proposed?.next && (
            <Button look="bar" disabled={busy} onClick={proposed.next}>
              Next way
            </Button>
          )}
          {records && proposed?.wish && (
            <Button look="bar" disabled={held} onClick={() => proposed.wish && onRecord({ ...proposed.wish })}>
              Make this my wish
            </Button>
          )}
          {first && button(first, true)}
          {/* Always second, whatever else may be answered. */}
          {alarm.ringing && (
            <Button look="bar" onClick={alarm.hush}>
              Quiet
            </Button>
          )}
          {others.map((answer) => button(answer, allAlike))}
          {alarm.silent && <span className="self-center">Sound is off: tap anywhere.</span>}
          {records && !batch.finished && !asked.has('reading') && (
            <Button look="bar" letter="R" onClick={() => onSheet('reading')}>
              Reading
            </Button>
          )}
          {records && !batch.finished && !asked.has('add') && (
            <Button look="bar" letter="A" onClick={() => onSheet('add')}>
              Add
            </Button>
          )}
          {records && !batch.finished && (
            <Button look="bar" letter="T" onClick={() => onSheet('taste')}>
              Taste
            </Button>
          )}
          {readsAloud() && (
            <Button look="bar" letter="V" onClick={sayIt}>
              Say it
            </Button>
          )}
          {records ? (
            <Button look="bar" letter="N" onClick={() => onSheet('note')}>
              Note
            </Button>
          ) : (
            <span className="self-center">You look on here.</span>
          )}
          <Button look="bar" className="md:hidden" onClick={() => onSheet('log')}>
            Log
          </Button>
          {records && undo && !stands.pending && (
            <Button look="bar-danger" letter="U" disabled={held} onClick={undo.act} title={`Take back: ${undo.label}`}>
              <span>
                Undo<span className="sr-only">: {undo.label}</span>
              </span>
            </Button>
          )}
        </div>
      </div>
      {/* Above the sentence, and behind its answers for whoever goes by the tabulator. */}
      <div className="order-first lying:flex lying:flex-row-reverse lying:items-center lying:justify-end lying:gap-x-5">
        {batch.rest && batch.act.kind !== 'rest' && (
          <p className="text-base leading-snug">
            <Words of={batch.rest} />
          </p>
        )}
        {recorded && undo && !stands.pending && (
          <p className="flex min-w-0 items-center gap-x-3">
            <span className="min-w-0 truncate">{recorded}</span>
            <Button look="bar" className="shrink-0 whitespace-nowrap" disabled={held} onClick={undo.act}>
              Take back
            </Button>
          </p>
        )}
      </div>
      </div>
    </section>
  )
}

/** More answers than this want a wider place, to stand in one row. */
const MANY = 3

/** How long a sentence stands before it can be answered, and what was recorded above it, ms. */
const ARMED_MS = 800
const RECORDED_MS = 6000

/** Whether what is asked has stood long enough to be read: a second tap on the same place is none for it. */
function useArmed(asked: string): boolean {
  const [armed, setArmed] = useState(asked)
  useEffect(() => {
    const timer = setTimeout(() => setArmed(asked), ARMED_MS)
    return () => clearTimeout(timer)
  }, [asked])
  return armed === asked
}

/** What was recorded last, for as long as it is new; what stood there before the page was opened is not. */
function useRecorded(seq: number, label: string | null): string | null {
  const [seen, setSeen] = useState(seq)
  useEffect(() => {
    const timer = setTimeout(() => setSeen(seq), RECORDED_MS)
    return () => clearTimeout(timer)
  }, [seq])
  return seq > seen ? label : null
}

/** Whether the way in hand is what the bar speaks of: not before a doubt, nor before what was thought for the cook is asked. */
function speaksOf(batch: Batch, proposal: Proposal): boolean {
  const { kind } = batch.act
  if (kind === 'warn' || kind === 'slip' || batch.finished) return false
  return kind === 'choose' || proposal.changed
}

/** The sentence, with its countdown where there is a time to look. */
function Sentence({ batch, stands }: { batch: Batch; stands: Stands }) {
  const now = useNow()
  const say = useSay()
  const read = stands.kept.at(-1)
  if (read && (stands.there || stands.look !== null)) {
    const { stop_reads, stop } = batch.curve
    const mark = stop_reads?.[batch.act.reads_by as keyof typeof stop_reads] ?? stop
    return (
      <>
        <span className="text-glow">{read.label}</span>, not sent yet.{' '}
        {stands.look === null ? 'That is the mark, or past it: off the heat.' : stands.look <= now ? 'Look now. ' : <>Look in <span className="text-glow">{minutesUntil(stands.look, now)}</span>. </>}
        {stands.look !== null && mark && <>Stop at <span className="text-glow">{say(mark)}</span>.</>}
      </>
    )
  }
  const { look_at, countdown, overdue, sentence } = batch.act
  if (stands.pending && (look_at === null || Date.parse(look_at) > now)) {
    return <>What you did is kept here. Go by spoon and tongue until the server answers.</>
  }
  // What is asked before anything else is asked whatever the clock says; the alarm rings all the same.
  if (look_at === null || countdown === null || overdue === null) return <Words of={sentence} amounts="text-glow" />
  if (Date.parse(look_at) <= now) return <Words of={overdue} amounts="text-glow" />
  return (
    <>
      <Words of={countdown} amounts="text-glow" /> <Words of={sentence} amounts="text-glow" />
    </>
  )
}
