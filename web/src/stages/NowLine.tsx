import type { Problem } from '../api/client'
import type { Answer, Batch, Payload, Stage, Wanted } from '../api/hooks'
import { clock } from '../app/clock'
import type { Alarm } from '../app/useAlarm'
import { useNow } from '../app/useNow'
import { useSay } from '../app/units'
import { Button } from '../ui/Button'
import type { SheetName } from './letters'

interface Props {
  batch: Batch
  view: string
  /** A wish that is changed on the page and not kept yet: nothing is proposed for the one before it. */
  draft: Wanted | null
  busy: boolean
  problem: Problem | null
  onRecord: (payload: Payload) => void
  onOpen: (view: Stage | 'plan') => void
  onSheet: (sheet: SheetName) => void
  undo: { label: string; act: () => void } | null
  alarm: Alarm
}

/** The letters that open what an answer opens; `letters.tsx` listens to them. */
const LETTERS: Partial<Record<string, string>> = { plan: 'P', skim: 'S', reading: 'R', add: 'A' }

/** One sentence that says what to do and when, and the buttons that answer it. */
export function NowLine({ batch, view, draft, busy, problem, onRecord, onOpen, onSheet, undo, alarm }: Props) {
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
  const say = useSay()
  const now = useNow()
  const { look_at, overdue, sentence, by } = batch.act
  if (by !== null) return <Emphasised text={say(sentence).replace('{by}', clock(by))} />
  // What is asked before anything else is asked whatever the clock says; the alarm rings all the same.
  const first = batch.act.doing !== batch.act.kind
  if (first || look_at === null || overdue === null) return <Emphasised text={say(sentence)} />
  const left = Date.parse(look_at) - now
  const minutes = Math.max(Math.round(left / 60_000), 1)
  const countdown = batch.act.kind === 'boil' ? `Boil. Look in ${minutes}\u00a0min.` : `${minutes}\u00a0min more.`
  return <Emphasised text={left > 0 ? `${countdown} ${say(sentence)}` : say(overdue)} />
}

/** Amounts stand out, so that the sentence can be read from afar. */
function Emphasised({ text }: { text: string }) {
  const parts = text.split(/(\d+(?:[\u00a0.,/]\d+| \d+\/\d+)*[⅛¼⅓⅜½⅝⅔¾⅞]?(?:\u00a0(?:mL|L|g|mm|min|in|oz|lb|cups?|tbsp|tsp|qt|°C|°F|%))?|[⅛¼⅓⅜½⅝⅔¾⅞]\u00a0(?:cups?|tbsp|tsp|qt))/)
  return parts.map((part, i) =>
    i % 2 === 1 ? (
      <span key={i} className="text-glow">
        {part}
      </span>
    ) : (
      part
    ),
  )
}
