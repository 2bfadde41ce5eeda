import { useRef, useState, type ClipboardEvent } from 'react'
import type { Line } from '../api/types'
import type { Schemas } from '../api/client'
import { useLinePreview, useReadLines, useReadRecipe } from '../api/previews'
import { useLists } from '../api/lists'
import { useSay, Words } from '../shared/units'
import { Button } from '../ui/Button'
import { Choice } from '../ui/Choice'
import { Popover } from '../ui/Popover'
import { TextField } from '../ui/TextField'
import { ConcentrateSheet } from './ConcentrateSheet'
import { counts } from './draft'
import { useSettled } from '../shared/useSettled'

interface Props {
  lines: readonly Line[]
  /** What becomes of the lines as they are by then. */
  onLines: (next: (lines: readonly Line[]) => Line[]) => void
}

/** What went into the braise, line by line, as a cook would write it; a whole list can be pasted. */
export function WentIn({ lines, onLines }: Props) {
  const say = useSay()
  const { most_lines: most } = useLists()
  const [text, setText] = useState('')
  const [rest, setRest] = useState('')
  const [removed, setRemoved] = useState<{ line: Line; at: number } | null>(null)
  const [making, setMaking] = useState(false)
  const read = useReadLines()
  const preview = useLinePreview(useSettled(text.trim(), 160))
  const typing = text.trim() ? (preview.data?.lines ?? []) : []
  const put = (found: Schemas['LinesOut']) => {
    onLines((now) => [...now, ...found.lines])
    setRest(found.rest)
    setRemoved(null)
    setText('')
  }
  const add = (line: Schemas['LineIn']) => read.mutate(line, { onSuccess: put })
  const paste = (event: ClipboardEvent) => {
    const pasted = event.clipboardData.getData('text')
    if (!pasted.trim().includes('\n')) return
    event.preventDefault()
    read.mutate({ text: pasted.slice(0, 200_000), list: true }, { onSuccess: put })
  }
  const replace = (at: number, by: readonly Line[]) => onLines((now) => [...now.slice(0, at), ...by, ...now.slice(at + 1)])
  const left = lines.filter((line) => !counts(line) && line.line.use !== 'left_out').length
  const unsure = lines.filter((line) => line.doubt !== null).length
  return (
    <section aria-label="What went in">
      <form
        className="flex items-end gap-2"
        onSubmit={(event) => {
          event.preventDefault()
          if (text.trim()) add({ text })
        }}
      >
        <TextField
          label="What went into the braise? One thing at a time, or paste the whole list"
          placeholder="half a bottle of red wine, reduced by half"
          value={text}
          onChange={setText}
          onPaste={paste}
          autoComplete="off"
          maxLength={2000}
          className="min-w-0 flex-1"
          error={read.error?.message}
        />
        <Button type="submit" disabled={!text.trim() || read.isPending} className={read.error ? 'mb-7' : ''}>
          {read.isPending ? 'Reading' : 'Put it in'}
        </Button>
      </form>
      <div className="min-h-8 pt-1" aria-live="polite">
        {typing.map((line, at) => (
          <p key={at}>
            {line.problem ? (
              <span className="text-quiet">
                {typing.length > 1 && `${line.name}: `}
                <Words of={line.problem} />{' '}
              </span>
            ) : (
              <>
                {line.about && 'about '}
                <b>{line.amount && say(line.amount)}</b> {line.name} <Brings brings={line.brings} />
                {line.doubt && <span className="block font-medium text-heat"><Words of={line.doubt} /></span>}
              </>
            )}
            {typing.length === 1 && line.candidates.length > 0 && (
              <Candidates candidates={line.candidates.filter((c) => c.name !== line.name)} onPick={(ingredient) => add({ text, ingredient })} />
            )}
          </p>
        ))}
        {typing.length === 0 && lines.length === 0 && (
          <p className="text-quiet">
            Not needed, but it says how much salt, gelatin, fat, acid and alcohol to expect.{' '}
            <button type="button" className="min-h-11 font-semibold text-ink underline" onClick={() => setMaking(true)}>
              Stock from a concentrate?
            </button>{' '}
            <FromRecipe onRead={put} />
          </p>
        )}
      </div>
      {rest && (
        <div role="status" className="mb-2 rounded-xl border-2 border-heat p-3">
          <p className="font-medium">More than {most} lines: what follows was not read. It is kept here.</p>
          <textarea readOnly aria-label="Lines that were not read" value={rest} rows={3} className="mt-2 w-full rounded-lg border border-line bg-panel p-2 text-sm" />
        </div>
      )}
      {lines.length > 0 && (
        <ul className="grid gap-x-6 2xl:grid-cols-2">
          {lines.map((line, at) => (
            <Row
              key={`${at}-${line.line.text}`}
              line={line}
              onChange={(by) => replace(at, by)}
              onRemove={() => {
                setRemoved({ line, at })
                replace(at, [])
              }}
            />
          ))}
        </ul>
      )}
      <p className="flex flex-wrap items-center gap-x-4 pt-1 text-quiet" aria-live="polite">
        {left > 0 && <span>{left === 1 ? 'One line does' : `${left} lines do`} not count yet.</span>}
        {unsure > 0 && <span>{unsure === 1 ? 'One line is' : `${unsure} lines are`} not sure: look at what it was taken for.</span>}
        {removed && (
          <button
            type="button"
            className="min-h-12 font-semibold text-ink underline"
            onClick={() => {
              onLines((now) => [...now.slice(0, removed.at), removed.line, ...now.slice(removed.at)])
              setRemoved(null)
            }}
          >
            Put {removed.line.name} back
          </button>
        )}
        {lines.length > 0 && (
          <button type="button" className="min-h-12 font-semibold text-ink underline" onClick={() => setMaking(true)}>
            Stock from a concentrate?
          </button>
        )}
      </p>
      {making && <ConcentrateSheet onClose={() => setMaking(false)} onMade={(made) => onLines((now) => [...now, ...made])} />}
    </section>
  )
}

const inks: Partial<Record<Line['brings'][number]['key'], string>> = { salt: 'text-salt', fat: 'text-fat-ink' }

/** What a line brings, salt and fat in their colours. */
/** The list of a recipe that was saved from elsewhere: a page, or its JSON-LD. */
function FromRecipe({ onRead }: { onRead: (found: Schemas['LinesOut']) => void }) {
  const input = useRef<HTMLInputElement>(null)
  const read = useReadRecipe()
  return (
    <>
      <button type="button" className="min-h-11 font-semibold text-ink underline" disabled={read.isPending} onClick={() => input.current?.click()}>
        From a saved recipe
      </button>
      <input
        ref={input}
        type="file"
        accept=".html,.htm,.json,.jsonld,application/ld+json,text/html"
        aria-label="A saved recipe"
        className="sr-only"
        tabIndex={-1}
        onChange={(event) => {
          const [file] = event.target.files ?? []
          void file?.text().then((text) => read.mutate(text, { onSuccess: onRead }))
          event.target.value = ''
        }}
      />
      {read.error && (
        <span role="alert" className="block font-medium text-heat">
          {read.error.rest() ?? read.error.message}
        </span>
      )}
    </>
  )
}

function Brings({ brings }: Pick<Line, 'brings'>) {
  return (
    <span className="text-quiet">
      {brings.map(({ key, said }, i) => (
        <span key={key}>
          {i > 0 && ', '}
          <span className={inks[key]}>
            <Words of={said} />
          </span>
        </span>
      ))}
    </span>
  )
}

function Candidates({ candidates, onPick }: { candidates: readonly Schemas['FoundOut'][]; onPick: (key: string) => void }) {
  return (
    <span className="inline-flex flex-wrap gap-1.5 align-middle">
      {candidates.slice(0, 4).map((candidate) => (
        <button
          key={candidate.key}
          type="button"
          className="min-h-11 rounded-full border border-line bg-panel px-3 hover:border-ink"
          onClick={() => onPick(candidate.key)}
        >
          {candidate.name}
        </button>
      ))}
    </span>
  )
}

interface RowProps {
  line: Line
  onChange: (by: readonly Line[]) => void
  onRemove: () => void
}

/** One line; tapped, it can be put right. */
function Row({ line, onChange, onRemove }: RowProps) {
  const say = useSay()
  const { uses } = useLists()
  const [open, setOpen] = useState(false)
  const { use, left, poured_off, ingredient, text } = line.line
  const lost = use === 'left_out'
  return (
    <li className="border-b border-line">
      <Popover
        open={open}
        onOpen={setOpen}
        label={`Change ${line.name}`}
        className="flex min-h-12 w-full items-baseline gap-3 py-1.5 text-left hover:bg-panel data-[state=open]:bg-panel"
        trigger={
          <>
            <span className="w-24 shrink-0 text-right font-bold">{line.amount ? `${line.about ? '≈ ' : ''}${say(line.amount)}` : '?'}</span>
            <span className={`min-w-0 flex-1 ${lost ? 'line-through opacity-60' : ''}`}>
              {line.amount ? line.name : text}
              {use !== 'in' && use !== 'left_out' && <span className="text-quiet">, {uses.find(({ key }) => key === use)?.label}</span>}{' '}
              <Brings brings={line.brings} />
              {line.note && <span className="block text-sm text-quiet"><Words of={line.note} /></span>}
              {line.problem && <span className="block font-medium text-heat"><Words of={line.problem} /></span>}
              {line.problem && line.candidates.length > 0 && (
                <span className="block text-quiet">Tap to choose: {line.candidates.map((c) => c.name).join('; ')}</span>
              )}
            </span>
          </>
        }
      >
        <Edit key={text} {...{ line, onChange, onRemove }} left={left ?? 0.5} poured={poured_off} ingredient={ingredient ?? null} />
      </Popover>
      {(line.doubt ?? line.choices.length > 0) && <Doubt line={line} onChange={onChange} />}
    </li>
  )
}

/** What a line was taken for, and what else it may be: one tap puts it right. */
function Doubt({ line, onChange }: Pick<RowProps, 'line' | 'onChange'>) {
  const read = useReadLines()
  const chip = 'min-h-11 rounded-full border border-line bg-panel px-3 hover:border-ink disabled:opacity-45'
  return (
    <div className="flex flex-wrap items-center gap-2 pb-2 pl-4">
      {line.doubt && (
        <span className="font-medium text-heat">
          <Words of={line.doubt} />
        </span>
      )}
      {line.doubt && (
        <button type="button" className={chip} onClick={() => onChange([{ ...line, doubt: null, choices: [] }])}>
          That is right
        </button>
      )}
      {line.choices.map(({ said, line: other }, at) => (
        <button key={at} type="button" className={chip} disabled={read.isPending} onClick={() => read.mutate(other, { onSuccess: (found) => onChange(found.lines) })}>
          <Words of={said} />
        </button>
      ))}
      {read.error && <span className="text-heat">{read.error.message}</span>}
    </div>
  )
}

interface EditProps extends RowProps {
  left: number
  poured: number
  ingredient: string | null
}

function Edit({ line, onChange, onRemove, left, poured: off, ingredient }: EditProps) {
  const { uses, reductions, poured_off: parts } = useLists()
  const [text, setText] = useState(line.line.text)
  const read = useReadLines()
  const { use } = line.line
  const again = (part: Partial<Schemas['LineIn']>) =>
    read.mutate({ text: line.line.text, ingredient, use, left, poured_off: off, ...part }, { onSuccess: (found) => onChange(found.lines) })
  return (
    <div className="grid gap-4">
      <form
        className="flex items-end gap-2"
        onSubmit={(event) => {
          event.preventDefault()
          read.mutate({ text }, { onSuccess: (found) => onChange(found.lines) })
        }}
      >
        <TextField label="As you would write it" value={text} onChange={setText} className="min-w-0 flex-1" autoComplete="off" />
        <Button type="submit" disabled={!text.trim() || read.isPending}>
          Read
        </Button>
      </form>
      {(line.problem ?? read.error) && <p className="font-medium text-heat">{read.error?.message ?? (line.problem && <Words of={line.problem} />)}</p>}
      {line.candidates.length > 0 && (
        <div>
          <p className="mb-1.5 text-quiet">{line.problem ? 'Perhaps it is' : 'Or is it'}</p>
          <Candidates candidates={line.candidates.filter((c) => c.key !== ingredient)} onPick={(key) => again({ ingredient: key })} />
        </div>
      )}
      {line.amount && (
        <Choice label="How it went in" layout="pairs" value={use} onChange={(next) => again({ use: next })} options={uses.map(({ key, label }) => ({ value: key, label }))} />
      )}
      {use === 'reduced' && (
        <Choice
          label="Boiled down to"
          value={reductions.find(({ share }) => share === left)?.key}
          onChange={(key) => again({ left: reductions.find((one) => one.key === key)?.share ?? left })}
          options={reductions.map(({ key, label, hint }) => ({ value: key, label, hint }))}
        />
      )}
      {use === 'fried' && (
        <Choice
          label="Poured off afterwards"
          value={parts.find(({ share }) => share === off)?.key}
          onChange={(key) => again({ poured_off: parts.find((one) => one.key === key)?.share ?? off })}
          options={parts.map(({ key, label }) => ({ value: key, label }))}
        />
      )}
      <Button onClick={onRemove}>Take it out of the list</Button>
    </div>
  )
}
