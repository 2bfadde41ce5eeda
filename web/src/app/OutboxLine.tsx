import { useLive, useOutbox } from '../api/live'
import { Button } from '../ui/Button'

/** Keeps the page up to date, and says what the server has not been told yet. */
export function OutboxLine() {
  useLive()
  const { waiting, refused, dismiss } = useOutbox()
  if (waiting.length === 0 && refused.length === 0) return null
  return (
    <div role="status" aria-label="Kept in this browser" className="sticky top-0 z-40 border-b-2 border-heat bg-panel px-4 py-2 font-medium md:px-7">
      {waiting.length > 0 && (
        <p>
          The server does not answer. {waiting.length === 1 ? 'One entry is' : `${waiting.length} entries are`} kept in this browser and sent as soon as it does.
        </p>
      )}
      {refused.map(({ waiting: one, why }) => (
        <p key={one.id} className="text-heat">
          Kept while the server was away, and then not taken: {why}
        </p>
      ))}
      {refused.length > 0 && <Button onClick={dismiss}>Understood</Button>}
    </div>
  )
}
