import { Sheet } from '../ui/Sheet'

/** What each letter does, in words. */
const LETTERS: readonly [string, string][] = [
  ['R', 'take a reading'],
  ['A', 'add something'],
  ['S', 'skim'],
  ['T', 'taste'],
  ['N', 'note'],
  ['P', 'plan: what you want, and the ways there'],
  ['L', 'log'],
  ['U', 'undo the last entry'],
  ['V', 'read the sentence aloud, where the menu says so'],
  ['Enter', 'the answer in gold, where there is one'],
  ['?', 'this list'],
]

/** The letters of the bench. */
export function HelpSheet({ onClose }: { onClose: () => void }) {
  return (
    <Sheet open onClose={onClose} title="Keys">
      <dl className="grid grid-cols-[4.5rem_1fr] gap-y-2 text-lg">
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
