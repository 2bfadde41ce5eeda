import { useSay } from '../shared/units'
import { usePrep } from '../api/houseDishes'
import type { Schemas } from '../api/client'
import { Button } from '../ui/Button'

interface Props {
  dishes: Schemas['WantedDish'][]
  names: readonly { id: string; name: string }[]
}

/** Everything that the chosen dishes need, added up, to be weighed out and ticked off; on paper too. */
export function PrepList({ dishes, names }: Props) {
  const say = useSay()
  const prep = usePrep(dishes)
  const called = dishes.map(({ id, people }) => `${names.find((one) => one.id === id)?.name ?? ''} for ${people}`)
  return (
    <section aria-labelledby="get-ready" className="mt-8 print:mt-0">
      <div className="flex flex-wrap items-baseline gap-x-4">
        <h2 id="get-ready" className="text-xl">
          To get ready
        </h2>
        <p className="min-w-0 flex-1 text-quiet">{called.join(', ')}</p>
        <Button className="print:hidden" onClick={() => window.print()}>
          Print it
        </Button>
      </div>
      {prep.isError && (
        <p role="alert" className="py-2 font-medium text-heat">
          {prep.error.message}
        </p>
      )}
      {prep.data && !prep.isError && (
        <ul className="mt-2 columns-1 gap-8 sm:columns-2">
          {prep.data.needed.map((row) => (
            <li key={row.name} className="break-inside-avoid border-b border-line py-1.5">
              <label className="flex items-baseline gap-3">
                <input type="checkbox" className="size-5 shrink-0 translate-y-0.5 accent-ink" />
                <span className="min-w-0 flex-1">
                  <b>{say(row.amount)}</b> {row.name}
                  {row.each.length > 1 && <span className="block text-sm text-quiet">{row.each.map(({ dish, amount }) => `${say(amount)} ${dish}`).join(', ')}</span>}
                </span>
              </label>
            </li>
          ))}
          {prep.data.untold.map(({ dish, text }) => (
            <li key={`${dish}: ${text}`} className="break-inside-avoid border-b border-line py-1.5">
              <label className="flex items-baseline gap-3">
                <input type="checkbox" className="size-5 shrink-0 translate-y-0.5 accent-ink" />
                <span className="min-w-0 flex-1">
                  {text} <span className="text-sm text-quiet">({dish}, as much as you take)</span>
                </span>
              </label>
            </li>
          ))}
        </ul>
      )}
    </section>
  )
}
