import { Unfold } from '../ui/Unfold'

/** What each letter does at the bench, in words. */
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
  ['?', 'this sheet, on any page'],
]

/** The letters of the bench. */
export function Letters() {
  return (
    <Unfold label="" className="mt-3 hidden md:block" summary={<span className="inline-flex min-h-12 items-center font-semibold underline">Keys at the bench</span>}>
      <dl className="grid grid-cols-[4.5rem_1fr] gap-y-2 text-lg text-ink">
        {LETTERS.map(([letter, does]) => (
          <div key={letter} className="contents">
            <dt className="font-bold">{letter}</dt>
            <dd>{does}</dd>
          </div>
        ))}
      </dl>
    </Unfold>
  )
}
