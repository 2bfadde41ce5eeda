import type { ReactNode } from 'react'
import { Button } from '../ui/Button'

interface Props<Thing> {
  id: string
  title: string
  about: string
  /** What is said where there is none yet. */
  none: string
  /** What adds one. */
  add: string
  mayChange: boolean
  things: readonly Thing[] | undefined
  nameOf: (thing: Thing) => string
  idOf: (thing: Thing) => string
  onAdd: () => void
  onChange: (thing: Thing) => void
  onPutAway: (thing: Thing) => void
  /** What is told of one beneath its name. */
  children: (thing: Thing) => ReactNode
}

/** Things of the kitchen's own, a card each: changed, and put away. */
export function OwnList<Thing>({ id, title, about, none, add, mayChange, things, nameOf, idOf, onAdd, onChange, onPutAway, children }: Props<Thing>) {
  return (
    <>
      <div className="mt-10 mb-4 flex flex-wrap items-end justify-between gap-3">
        <div>
          <h2 id={id} className="mb-1 text-xl">
            {title}
          </h2>
          <p className="text-quiet">{about}</p>
        </div>
        {mayChange && <Button onClick={onAdd}>{add}</Button>}
      </div>
      <ul className="grid gap-3 sm:grid-cols-2 lg:grid-cols-4">
        {things?.map((thing) => (
          <li key={idOf(thing)} className="flex flex-col rounded-2xl border border-line bg-panel p-4">
            <p className="font-bold">{nameOf(thing)}</p>
            {children(thing)}
            {mayChange && (
              <div className="mt-auto flex gap-2 pt-3">
                <Button onClick={() => onChange(thing)}>
                  <span>
                    Change<span className="sr-only"> {nameOf(thing)}</span>
                  </span>
                </Button>
                <Button onClick={() => onPutAway(thing)}>
                  <span>
                    Put away<span className="sr-only"> {nameOf(thing)}</span>
                  </span>
                </Button>
              </div>
            )}
          </li>
        ))}
      </ul>
      {things?.length === 0 && <p className="text-lg">{none}</p>}
    </>
  )
}
