import type { Batch, Payload } from '../api/hooks'

const signs = [
  { sign: 'fizzing', label: 'quick small bubbles' },
  { sign: 'calm', label: 'an ordinary simmer' },
  { sign: 'slow_bubbles', label: 'slow heavy bubbles' },
  { sign: 'raw_gone', label: 'sharp smell gone' },
  { sign: 'dark', label: 'turned dark' },
  { sign: 'trail', label: 'spoon leaves a trail' },
  { sign: 'film', label: 'film on the spoon' },
  { sign: 'line', label: 'line stays' },
  { sign: 'frying', label: 'sounds like frying' },
] as const

/** What is seen, heard and smelt, one tap each. */
export function Signs({ batch, onRecord }: { batch: Batch; onRecord: (payload: Payload) => void }) {
  return (
    <div role="group" aria-label="Seen in the pan" className="mt-3 flex flex-wrap items-center gap-1.5">
      <span className="w-full text-quiet">Seen in the pan</span>
      {signs.map(({ sign, label }) => {
        const seen = batch.signs.includes(sign)
        return (
          <button
            key={sign}
            type="button"
            aria-pressed={seen}
            onClick={() => onRecord({ kind: 'seen', sign })}
            className={`min-h-12 rounded-full border-2 bg-panel px-3.5 hover:border-ink ${seen ? 'border-ink font-semibold' : 'border-line'}`}
          >
            {label}
          </button>
        )
      })}
    </div>
  )
}
