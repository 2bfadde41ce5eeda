import { use } from 'react'
import { LooksOn } from './LooksOn'

interface Props {
  label: string
  on: boolean
  onTap: () => void
}

/** One of several that may all be on at once. */
export function Toggle({ label, on, onTap }: Props) {
  const looksOn = use(LooksOn)
  return (
    <button
      type="button"
      aria-pressed={on}
      disabled={looksOn}
      onClick={onTap}
      className={`min-h-12 rounded-full border-2 bg-panel px-3.5 hover:border-ink ${on ? 'border-ink font-semibold text-ink' : 'border-line'}`}
    >
      {label}
    </button>
  )
}
