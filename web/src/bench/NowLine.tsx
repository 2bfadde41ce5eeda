import type { Problem } from '../api/client'
import type { Answer, Batch, Payload } from '../api/hooks'
import type { Alarm } from '../shared/useAlarm'
import { useNow } from '../shared/useNow'
import { Words } from '../shared/units'
import { Button } from '../ui/Button'
import { useBench } from '../stages/useBench'
import type { SheetName } from './letters'

interface Props {
  /** What the bar asks for leads on, whatever is open. */
  onRecord: (payload: Payload) => void
  problem: Problem | null
  onSheet: (sheet: SheetName) => void
  undo: { label: string; act: () => void } | null
  alarm: Alarm
}

/** The letters that open what an answer opens; `letters.tsx` listens to them. */
const LETTERS: Partial<Record<string, string>> = { plan: 'P', skim: 'S', reading: 'R', add: 'A' }

/** One sentence that says what to do and when, and the buttons that answer it. */
export function NowLine({ onRecord, problem, onSheet, undo, alarm }: Props) {
  const { batch, view, draft, busy, onOpen } = useBench()
  // What the open stage offers itself is not offered twice.
  const changed = draft !== null && (batch.act.kind === 'want' || batch.act.kind === 'choose')
  const answers: Answer[] = changed
    ? [{ label: 'Keep this wish', payload: { ...draft }, opens: null, asks: null }]
    : batch.act.answers.filter((answer) => answer.opens !== view || answer.payload)
  const give = ({ payload, opens, asks }: Answer) => {
    if (payload) onRecord(payload as Payload)
    else if (asks) onSheet(asks)
    else if (opens) onOpen(opens)
  }
  const asked = new Set(answers.map((answer) => answer.asks))
  return (
    <section aria-label="Now" className={`sticky bottom-0 z-30 px-4 py-3 text-bar-ink md:px-7 ${alarm.ringing ? 'flashes bg-alarm' : 'bg-bar'}`}>
      {problem && (
        <p role="alert" className="mb-2 font-medium text-[#ffb39c]">
          {problem.message}
        </p>
      )}
      <div className="flex flex-wrap items-center gap-x-6 gap-y-3">
        <p role="status" className="min-w-64 flex-1 text-xl leading-snug font-semibold text-balance md:text-[1.45rem]">
          {changed ? 'You changed what you want: keep it, or take one of the ways.' : <Sentence batch={batch} />}
        </p>
        <div className="flex flex-wrap gap-2">
          {answers.map((answer, i) => (
            <Button
              key={answer.label}
              look={i === 0 || answers.every(({ payload }) => payload) ? 'bar-main' : 'bar'}
              letter={LETTERS[answer.opens ?? answer.asks ?? '']}
              disabled={busy}
              onClick={() => give(answer)}
            >
              {answer.label}
            </Button>
          ))}
          {alarm.silent && <span className="self-center">Sound is off: tap anywhere.</span>}
          {alarm.ringing && (
            <Button look="bar" onClick={alarm.hush}>
              Quiet
            </Button>
          )}
          {!batch.finished && !asked.has('reading') && (
            <Button look="bar" letter="R" onClick={() => onSheet('reading')}>
              Reading
            </Button>
          )}
          {!batch.finished && !asked.has('add') && (
            <Button look="bar" letter="A" onClick={() => onSheet('add')}>
              Add
            </Button>
          )}
          {!batch.finished && (
            <Button look="bar" letter="T" onClick={() => onSheet('taste')} className="max-sm:hidden">
              Taste
            </Button>
          )}
          <Button look="bar" letter="N" onClick={() => onSheet('note')} className="max-sm:hidden">
            Note
          </Button>
          <Button look="bar" className="md:hidden" onClick={() => onSheet('log')}>
            Log
          </Button>
          {undo && (
            <Button look="bar-danger" letter="U" disabled={busy} onClick={undo.act} title={`Take back: ${undo.label}`}>
              <span>
                Undo<span className="sr-only">: {undo.label}</span>
              </span>
            </Button>
          )}
        </div>
      </div>
    </section>
  )
}

/** The sentence, with its countdown where there is a time to look. */
function Sentence({ batch }: { batch: Batch }) {
  const now = useNow()
  const { look_at, countdown, overdue, sentence } = batch.act
  // What is asked before anything else is asked whatever the clock says; the alarm rings all the same.
  if (look_at === null || countdown === null || overdue === null) return <Words of={sentence} amounts="text-glow" />
  if (Date.parse(look_at) <= now) return <Words of={overdue} amounts="text-glow" />
  return (
    <>
      <Words of={countdown} amounts="text-glow" /> <Words of={sentence} amounts="text-glow" />
    </>
  )
}
