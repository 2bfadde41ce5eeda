import type { Problem } from '../api/client'
import type { Batch, Payload, Stage } from '../api/hooks'
import { clock } from '../app/clock'
import { useNow } from '../app/useNow'
import { useSay } from '../app/units'
import { Button } from '../ui/Button'
import type { SheetName } from './letters'

interface Props {
  batch: Batch
  view: string
  busy: boolean
  problem: Problem | null
  onRecord: (payload: Payload) => void
  onOpen: (view: Stage | 'plan') => void
  onSheet: (sheet: SheetName) => void
  undo: { label: string; act: () => void } | null
  alarm: { ringing: boolean; hush: () => void }
}

interface Answer {
  label: string
  act: () => void
  letter?: string
}

/** One sentence that says what to do and when, and the buttons that answer it. */
export function NowLine({ batch, view, busy, problem, onRecord, onOpen, onSheet, undo, alarm }: Props) {
  const answers = answersTo({ batch, view, onRecord, onOpen, onSheet })
  return (
    <section aria-label="Now" className={`sticky bottom-0 z-30 px-4 py-3 text-bar-ink md:px-7 ${alarm.ringing ? 'flashes bg-alarm' : 'bg-bar'}`}>
      {problem && (
        <p role="alert" className="mb-2 font-medium text-[#ffb39c]">
          {problem.message}
        </p>
      )}
      <div className="flex flex-wrap items-center gap-x-6 gap-y-3">
        <p role="status" className="min-w-64 flex-1 text-xl leading-snug font-semibold text-balance md:text-[1.45rem]">
          <Sentence batch={batch} />
        </p>
        <div className="flex flex-wrap gap-2">
          {answers.map((answer, i) => (
            <Button key={answer.label} look={i === 0 || answers.length === 3 ? 'bar-main' : 'bar'} letter={answer.letter} disabled={busy} onClick={answer.act}>
              {answer.label}
            </Button>
          ))}
          {alarm.ringing && (
            <Button look="bar" onClick={alarm.hush}>
              Quiet
            </Button>
          )}
          {!batch.finished && batch.act.kind !== 'boil' && (
            <Button look="bar" letter="R" onClick={() => onSheet('reading')}>
              Reading
            </Button>
          )}
          {!batch.finished && (
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
  if (look_at === null || overdue === null) return <Emphasised text={say(sentence)} />
  const left = Date.parse(look_at) - now
  const minutes = Math.max(Math.round(left / 60_000), 1)
  return <Emphasised text={left > 0 ? `Boil. Look in ${minutes}\u00a0min. ${say(sentence)}` : say(overdue)} />
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

type Context = Pick<Props, 'batch' | 'view' | 'onRecord' | 'onOpen' | 'onSheet'>

/** What answers each act. One tap records what the sentence asks for. */
function answersTo({ batch, view, onRecord, onOpen, onSheet }: Context): Answer[] {
  const { act } = batch
  const verdicts = (of: 'body' | 'salt', words: [string, string, string]): Answer[] => [
    { label: words[0], act: () => onRecord({ kind: 'tested', of, verdict: 'low' }) },
    { label: words[1], act: () => onRecord({ kind: 'tested', of, verdict: 'right' }) },
    { label: words[2], act: () => onRecord({ kind: 'tested', of, verdict: 'high' }) },
  ]
  switch (act.kind) {
    case 'start':
    case 'want':
    case 'choose':
      return view === 'plan' ? [] : [{ label: 'Plan', letter: 'P', act: () => onOpen('plan') }]
    case 'cool':
      return view === 'skim' ? [] : [{ label: 'Temperature', act: () => onOpen('skim') }]
    case 'skim':
      return view === 'skim' ? [] : [{ label: 'Skim', letter: 'S', act: () => onOpen('skim') }]
    case 'heat':
      return [{ label: 'It is on', act: () => onRecord({ kind: 'heated', heat: 'boil', share: 1, cover: 'open', oven_c: 150 }) }]
    case 'boil':
      return [{ label: 'Reading', letter: 'R', act: () => onSheet('reading') }]
    case 'let_down':
      return [{ label: 'Stirred in', act: () => onRecord({ kind: 'added', ingredient: 'water', volume_ml: act.amount }) }]
    case 'thicken': {
      const { thickener } = act
      return thickener === null
        ? []
        : [{ label: 'Whisked in', act: () => onRecord({ kind: 'thickened', thickener, dry_g: act.amount }) }]
    }
    case 'test_body':
      return verdicts('body', ['Too thin', 'Right', 'Too thick'])
    case 'salt':
      return [{ label: 'Stirred in', act: () => onRecord({ kind: 'salted', salt_g: act.amount, salt: 'table' }) }]
    case 'test_salt':
      return verdicts('salt', ['Flat', 'Right', 'Too salty'])
    case 'finish':
      return view === 'serve' ? [] : [{ label: 'Finish', act: () => onOpen('serve') }]
    case 'done':
    case 'alone':
      return []
  }
}
