import { useState } from 'react'
import { newId } from '../api/id'
import { useLists } from '../api/lists'
import { Button } from '../ui/Button'
import { Choice } from '../ui/Choice'
import { TextField } from '../ui/TextField'
import { useBench } from './useBench'

/** How a finished sauce was, who ate it, and what is to be done otherwise next time. */
export function HowWasIt() {
  const { batch, busy, onRecord, problem } = useBench()
  const { points, moments } = useLists()
  const { remembered } = batch
  const [ate, setAte] = useState(remembered.ate === null ? '' : String(remembered.ate))
  const [text, setText] = useState('')
  const [moment, setMoment] = useState<string>('start')
  // What is no number is told by the server, beside the field.
  const eaten = ate.trim() === '' ? {} : { ate: ate as unknown as number }
  return (
    <section aria-label="How it was" className="grid gap-3">
      <Choice
        label="How was it?"
        value={remembered.points === null ? undefined : String(remembered.points)}
        onChange={(next) => onRecord({ kind: 'rated', points: Number(next), ...eaten })}
        options={points.map((one) => ({ value: String(one.points), label: one.label }))}
      />
      {remembered.points !== null && (
        <form
          className="flex flex-wrap items-end gap-2"
          onSubmit={(event) => {
            event.preventDefault()
            if (remembered.points !== null) onRecord({ kind: 'rated', points: remembered.points, ...eaten })
          }}
        >
          <TextField label="How many ate" inputMode="numeric" value={ate} onChange={setAte} error={problem?.at('ate')} autoComplete="off" className="w-36" />
          <Button type="submit" disabled={busy || !ate.trim() || ate === String(remembered.ate)}>
            Keep it
          </Button>
        </form>
      )}
      <form
        className="grid gap-2 rounded-2xl border border-line p-3"
        onSubmit={(event) => {
          event.preventDefault()
          onRecord({ kind: 'next_time', note: newId(), text, moment: moment as 'start' }, () => setText(''))
        }}
      >
        <TextField label={`Next time you make ${batch.name}`} placeholder="Ten minutes longer." value={text} onChange={setText} error={problem?.at('text')} maxLength={2000} autoComplete="off" />
        <Choice label="It comes back" value={moment} onChange={setMoment} options={moments.map(({ key, label }) => ({ value: key as string, label }))} />
        <div>
          <Button type="submit" disabled={busy || !text.trim()}>
            Note it
          </Button>
        </div>
        {remembered.notes.length > 0 && (
          <ul aria-label="Noted for next time" className="divide-y divide-line">
            {remembered.notes.map((one) => (
              <li key={one.note} className="py-1.5">
                <span className="text-quiet">{one.label}:</span> <b>{one.text}</b>
              </li>
            ))}
          </ul>
        )}
      </form>
    </section>
  )
}
