import { useState } from 'react'
import { Link, useLocation } from 'wouter'
import { useChangeDish, useHouseDishes } from '../api/houseDishes'
import type { Schemas } from '../api/client'
import { useRights } from '../api/rights'
import { Header } from '../shared/Header'
import { Words } from '../shared/units'
import { Button } from '../ui/Button'
import { TextField } from '../ui/TextField'
import { inDays } from './inDays'
import { PrepList } from './PrepList'

type Line = Schemas['HouseDishLine']

/** The house dishes: each is started in one tap, for as many as eat; several together make a list to get ready. */
export function HouseDishes() {
  const dishes = useHouseDishes()
  const { records, arranges } = useRights()
  const [, go] = useLocation()
  const [away, setAway] = useState(false)
  // For how many, by dish, where somebody says so; and which of them are on the list.
  const [people, setPeople] = useState<Record<string, string>>({})
  const [listed, setListed] = useState<readonly string[]>([])
  const shown = dishes.data?.filter(({ retired }) => !retired) ?? []
  const gone = dishes.data?.filter(({ retired }) => retired) ?? []
  const heads = (dish: Line) => people[dish.id] ?? String(dish.people)
  const wanted = shown.filter(({ id }) => listed.includes(id)).map((dish) => ({ id: dish.id, people: Number(heads(dish)) }))
  return (
    <>
      <Header title="House dishes" />
      <main className="mx-auto max-w-5xl px-4 pb-16 md:px-7">
        {dishes.isError && (
          <p role="alert" className="py-4 font-medium text-heat">
            {dishes.error.message}
          </p>
        )}
        {dishes.isSuccess && shown.length === 0 && (
          <div className="py-12 print:hidden">
            <p className="mb-2 text-2xl font-bold">No dish is kept yet</p>
            <p className="max-w-2xl text-quiet">Finish a batch that you would make again, and keep it from its Serve stage. It is started from here in one tap then, for other numbers and in other pans.</p>
          </div>
        )}
        {shown.length > 0 && (
          <ul aria-label="House dishes" className="divide-y divide-line border-y border-line print:hidden">
            {shown.map((dish) => (
              <li key={dish.id} className="grid items-end gap-x-4 gap-y-2 py-3 sm:grid-cols-[minmax(0,1fr)_auto]">
                <div className="min-w-0">
                  <Link href={`/house-dishes/${dish.id}?people=${heads(dish)}`} className="inline-flex min-h-12 items-center text-lg leading-tight font-bold break-words underline">
                    {dish.name}
                  </Link>
                  <p className={dish.readable ? '' : 'font-medium text-heat'}>
                    <Words of={dish.said} />
                  </p>
                  <p className="text-sm text-quiet">
                    {dish.number > 1 && <>version {dish.number}, </>}
                    {inDays(dish.at)}
                    {dish.by && <>, {dish.by}</>}
                  </p>
                </div>
                {dish.readable && (
                  <div className="flex flex-wrap items-end gap-2">
                    <TextField label="For" aria-label={`People for ${dish.name}`} inputMode="numeric" value={heads(dish)} onChange={(next) => setPeople({ ...people, [dish.id]: next })} autoComplete="off" className="w-20" />
                    <Button aria-pressed={listed.includes(dish.id)} onClick={() => setListed(listed.includes(dish.id) ? listed.filter((id) => id !== dish.id) : [...listed, dish.id])}>
                      <span>
                        {listed.includes(dish.id) ? '✓ To get ready' : 'Get ready'}
                        <span className="sr-only"> {dish.name}</span>
                      </span>
                    </Button>
                    {records && <Button look="main" onClick={() => go(`/start?dish=${dish.id}&people=${heads(dish)}`)}>
                      <span>
                        Start it<span className="sr-only">: {dish.name}</span>
                      </span>
                    </Button>}
                  </div>
                )}
              </li>
            ))}
          </ul>
        )}
        {wanted.length > 0 && <PrepList dishes={wanted} names={shown} />}
        {arranges && gone.length > 0 &&
          (away ? (
            <ul aria-label="Put away" className="mt-6 divide-y divide-line border-y border-line print:hidden">
              {gone.map((dish) => (
                <Gone key={dish.id} dish={dish} />
              ))}
            </ul>
          ) : (
            <button type="button" className="mt-4 min-h-12 font-semibold text-quiet underline print:hidden" onClick={() => setAway(true)}>
              What was put away
            </button>
          ))}
      </main>
    </>
  )
}

/** A dish that was put away, to be brought back. */
function Gone({ dish }: { dish: Line }) {
  const change = useChangeDish(dish.id)
  return (
    <li className="flex flex-wrap items-center gap-x-4 py-2">
      <span className="min-w-0 flex-1 font-semibold break-words">{dish.name}</span>
      <Button onClick={() => change.mutate({ retired: false })}>
        <span>
          Bring it back<span className="sr-only">: {dish.name}</span>
        </span>
      </Button>
    </li>
  )
}
