import { useState } from 'react'
import type { Jar } from '../api/shelf'
import { day } from '../shared/clock'
import { PLACES } from '../shared/JarLine'
import { useSay, Words } from '../shared/units'
import { Button } from '../ui/Button'
import { Choice } from '../ui/Choice'

/** Sizes that label paper is sold in; the smallest holds what must be on it, and no room to write. */
const SIZES = {
  large: { label: '100 by 70 mm', box: 'w-[100mm] print:h-[70mm] p-3 text-base', name: 'text-2xl', rest: true },
  middle: { label: '70 by 50 mm', box: 'w-[70mm] print:h-[50mm] p-2 text-[2.9mm]', name: 'text-lg', rest: true },
  small: { label: '60 by 30 mm', box: 'w-[60mm] print:h-[30mm] p-1.5 text-[2.5mm]', name: 'text-base', rest: false },
}
type Size = keyof typeof SIZES

/** A label for each container, in the size of the paper there is. */
export function Labels({ jar }: { jar: Jar }) {
  const [size, setSize] = useState<Size>('large')
  return (
    <div className="grid justify-items-start gap-3">
      <Label jar={jar} size={size} />
      {Array.from({ length: jar.containers - 1 }, (_, index) => (
        <div key={index} className="hidden print:block">
          <Label jar={jar} size={size} />
        </div>
      ))}
      <div className="flex flex-wrap items-end gap-3 print:hidden">
        <Choice label="Label" value={size} onChange={setSize} options={Object.entries(SIZES).map(([value, { label }]) => ({ value: value as Size, label }))} />
        <Button look="main" onClick={() => window.print()}>
          {jar.containers > 1 ? `Print ${jar.containers} labels` : 'Print the label'}
        </Button>
      </div>
    </div>
  )
}

/** What goes on the container, with room to write. */
function Label({ jar, size }: { jar: Jar; size: Size }) {
  const say = useSay()
  const { box, name, rest } = SIZES[size]
  return (
    <article aria-label="Label" className={`${box} max-w-full break-inside-avoid border-2 border-ink bg-panel leading-snug print:border print:bg-white print:text-black`}>
      <h2 className={`${name} leading-tight font-bold break-words`}>{jar.name}</h2>
      <p>
        {say(jar.volume)}
        {jar.taste && <>, {jar.salt_percent.toFixed(2)} % salt, {jar.taste}</>}
        {jar.containers > 1 && <>, in {jar.containers}</>}
      </p>
      <dl className="mt-1 grid grid-cols-[auto_1fr] gap-x-3">
        <dt>made</dt>
        <dd>{day(jar.made)}</dd>
        <dt>use by</dt>
        <dd className="leading-tight font-bold">
          {day(jar.use_by)}, {PLACES[jar.place]}
        </dd>
        <dt>holds</dt>
        <dd>{jar.allergens.length ? jar.allergens.join(', ') : 'no allergen that was told'}</dd>
        {jar.alcohol && (
          <>
            <dt>alcohol</dt>
            <dd>about {say(jar.alcohol)} in all</dd>
          </>
        )}
      </dl>
      {rest && (
        <>
          <p className="mt-1 font-semibold">{jar.reheated ? 'Warmed once already: use it now, all of it.' : <Words of={jar.again} />}</p>
          <p aria-hidden="true" className="mt-2 border-b border-current pb-3">note</p>
        </>
      )}
    </article>
  )
}
