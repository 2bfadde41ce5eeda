import { useState } from 'react'
import { useLists } from '../api/lists'
import { again, type Waiting } from '../api/outbox'
import { Button } from '../ui/Button'
import { Sheet } from '../ui/Sheet'
import { TextField } from '../ui/TextField'
import { described, figures, withFigure } from './entries'

/** An entry that was not taken, with its figures to put right. */
export default function MendSheet({ one, onClose }: { one: Waiting; onClose: () => void }) {
  const [payload, setPayload] = useState(one.payload)
  const { kinds } = useLists()
  const fields = figures(payload)
  return (
    <Sheet open onClose={onClose} title={`Mend: ${described(one.payload, kinds)}`} {...(one.why ? { description: one.why } : {})}>
      <form
        className="grid gap-4"
        onSubmit={(event) => {
          event.preventDefault()
          again(one.id, payload)
          onClose()
        }}
      >
        {fields.map(({ path, label, value }) => (
          <TextField key={path.join('.')} label={label} value={value} autoComplete="off" onChange={(next) => setPayload(withFigure(payload, path, next))} />
        ))}
        {fields.length === 0 && <p>This entry has no figure to change. Send it again, or drop it.</p>}
        <Button type="submit" look="main">
          Send it again
        </Button>
      </form>
    </Sheet>
  )
}
