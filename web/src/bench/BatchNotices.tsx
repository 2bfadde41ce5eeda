import type { Batch, Payload } from '../api/types'
import { clock, day } from '../shared/clock'
import { Words } from '../shared/units'
import { Button } from '../ui/Button'
import { WhenForm } from './WhenForm'

const PARTS: Record<Batch['missing'][number]['part'], string> = {
  forecast: 'The forecast', plan: 'The plan', next: 'The next act', ribbon: 'The ribbon', pot: 'The pot', start: 'The start',
  marks: 'The marks', curve: 'The curve', skim: 'Taking the fat off', cooling: 'The cooling', words: 'The sentence', taste: 'The tastes', story: 'The story',
}

interface Props {
  missing: Batch['missing']
  log: Batch['log']
  onRecord: (payload: Payload) => void
}

/** What is to be known of a batch before anything else. Rare: it comes when it is needed. */
export default function BatchNotices({ missing, log, onRecord }: Props) {
  return (
    <>
      <MissingParts missing={missing} />
      <DeadClocks log={log} onRecord={onRecord} />
    </>
  )
}

/** What of a batch could not be worked out. Everything else stands. */
function MissingParts({ missing }: Pick<Batch, 'missing'>) {
  return missing.map(({ part, why }) => (
    <p key={part} role="status" className="mx-4 mt-2 rounded-xl border-2 border-heat px-4 py-2 md:mx-7">
      <span className="font-semibold">{PARTS[part]} is missing.</span> <Words of={why} /> What you enter is kept all the same.
    </p>
  ))
}

/** Entries that came with a time that cannot be: taken as they arrived, until the cook says, one by one, when it was. */
function DeadClocks({ log, onRecord }: Pick<Batch, 'log'> & { onRecord: (payload: Payload) => void }) {
  const [first, ...more] = log.filter((entry) => entry.told !== null && !entry.struck)
  return first && <DeadClock key={first.id} entry={first} more={more.length} onRecord={onRecord} />
}

function DeadClock({ entry, more, onRecord }: { entry: Batch['log'][number]; more: number; onRecord: (payload: Payload) => void }) {
  const told = day(entry.told ?? 0)
  const date = (at: string) => onRecord({ kind: 'dated', event: entry.id, at })
  return (
    <div role="alert" className="mx-4 mt-2 flex flex-wrap items-center gap-x-4 gap-y-2 rounded-xl border-2 border-heat px-4 py-2 md:mx-7">
      <p className="min-w-64 flex-1">
        <span className="font-semibold"><Words of={entry.text} /></span> came with the date {told}. Taken as {clock(entry.at)}, when it arrived. When was it?
        {more > 0 && <span className="text-quiet"> {more === 1 ? 'One more is' : `${more} more are`} to be asked about.</span>}
      </p>
      <Button onClick={() => date(entry.at)}>At {clock(entry.at)}</Button>
      <WhenForm label="Another time" act="Then" onDate={date} />
    </div>
  )
}
