import { use, type ReactNode } from 'react'
import { Shell } from './surroundings'

/** A word with its explanation behind a tap. */
export function Explain({ of, children }: { of: string; children: ReactNode }) {
  const { ask } = use(Shell)
  return (
    <button type="button" className="min-h-12 text-left text-base font-semibold underline decoration-dotted underline-offset-4" onClick={() => ask(`explained:${of}`)}>
      {children}
    </button>
  )
}
