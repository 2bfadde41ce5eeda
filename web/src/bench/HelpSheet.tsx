import { Sheet } from '../ui/Sheet'
import { LETTERS } from './letters'

/** The letters of the bench. */
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
