import { useState } from 'react'
import { momentOf } from '../shared/wall'
import { Button } from '../ui/Button'

interface Props {
  label: string
  act: string
  onDate: (at: string) => void
}

/** When something happened after all. */
export function WhenForm({ label, act, onDate }: Props) {
  const [when, setWhen] = useState('')
  return (
    <form
      className="flex flex-wrap gap-2"
      onSubmit={(event) => {
        event.preventDefault()
        if (when) onDate(momentOf(when))
      }}
    >
      <input
        type="datetime-local"
        aria-label={label}
        value={when}
        onChange={(event) => setWhen(event.target.value)}
        className="min-h-12 rounded-xl border-2 border-line bg-panel px-3"
      />
      <Button type="submit" disabled={!when}>
        {act}
      </Button>
    </form>
  )
}
