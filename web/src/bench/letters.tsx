import { useEffect, useRef } from 'react'
import { Sheet } from '../ui/Sheet'

export type SheetName = 'reading' | 'add' | 'taste' | 'note' | 'log' | 'help'

const LETTERS: readonly [string, string][] = [
  ['R', 'take a reading'],
  ['A', 'add something'],
  ['S', 'skim'],
  ['T', 'taste'],
  ['N', 'note'],
  ['P', 'plan: what you want, and the ways there'],
  ['L', 'log'],
  ['U', 'undo the last entry'],
  ['?', 'this list'],
]

/** Single letters for the acts of the bench; they rest while something is typed or a sheet is open. */
export function useLetters(acts: Record<string, (() => unknown) | undefined>) {
  const current = useRef(acts)
  useEffect(() => {
    current.current = acts
  })
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement
      // A key that is held acts once.
      if (event.repeat || event.ctrlKey || event.metaKey || event.altKey) return
      if (target.closest('input, textarea, [role=dialog], [role=menu]')) return
      const act = current.current[event.key.toLowerCase()]
      if (!act) return
      event.preventDefault()
      act()
    }
    addEventListener('keydown', press)
    return () => removeEventListener('keydown', press)
  }, [])
}

export function HelpSheet({ onClose }: { onClose: () => void }) {
  return (
    <Sheet open onClose={onClose} title="Keys">
      <dl className="grid grid-cols-[3rem_1fr] gap-y-2 text-lg">
        {LETTERS.map(([letter, does]) => (
          <div key={letter} className="contents">
            <dt className="font-bold">{letter}</dt>
            <dd>{does}</dd>
          </div>
        ))}
      </dl>
    </Sheet>
  )
}
