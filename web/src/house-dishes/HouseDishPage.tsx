import { use, useState, type ReactNode } from 'react'
import { Link, useLocation, useSearch } from 'wouter'
import { useQuery } from '@tanstack/react-query'
import { answer, client, type Problem, type Schemas } from '../api/client'
import { useChangeDish, useHouseDish, type HouseDish } from '../api/houseDishes'
import { keys } from '../api/keys'
import { useRights } from '../api/rights'
import { Header } from '../shared/Header'
import { Notice } from '../shared/Notice'
import { Skeleton } from '../shared/Skeleton'
import { Units, useSay, Words } from '../shared/units'
import { useSettled } from '../shared/useSettled'
import { Pick } from '../shared/Ask'
import { Button } from '../ui/Button'
import { TextField } from '../ui/TextField'
import { ComesTo, type Place } from './ComesTo'
import { inDays } from './inDays'

/** A house dish as a card: what goes in for so many, what it comes to in the pan that is taken, and what became of it. */
export function HouseDishPage({ id }: { id: string }) {
  const people = new URLSearchParams(useSearch()).get('people')
  const [, go] = useLocation()
  const { records, arranges } = useRights()
  const [heads, setHeads] = useState(people ?? '')
  const [place, setPlace] = useState<Place>({ pan: null, burner: null })
  const asked = useSettled(heads.trim())
  const dish = useHouseDish(id, asked === '' ? null : Number(asked))
  // What cannot be cooked for is told beside the field, and the card stays.
  const [last, setLast] = useState<HouseDish>()
  if (dish.data && dish.data !== last) setLast(dish.data)
  const shown = dish.data ?? last
  if (!shown) return dish.isError ? <Notice title="This dish cannot be shown" text={dish.error.message} onRetry={() => void dish.refetch()} /> : <Skeleton />
  const begin = new URLSearchParams({ dish: id, people: String(shown.people), ...(place.pan && { pan: place.pan }), ...(place.burner && { burner: place.burner }) })
  return (
    <>
      <Header title={shown.name} detail="House dish" />
      <main className="mx-auto max-w-5xl px-4 pb-16 md:px-7">
        <div className="flex flex-wrap items-end gap-x-4 gap-y-2 print:hidden">
          <TextField label="For how many?" inputMode="numeric" placeholder={String(shown.kept_for)} value={heads} onChange={setHeads} error={dish.error?.at('people') ?? dish.error?.message} autoComplete="off" className="w-36" />
          {records && shown.begins && (
            <Button look="main" onClick={() => go(`/start?${begin.toString()}`)}>
              Start it for {shown.people}
            </Button>
          )}
          <Button onClick={() => window.print()}>Print the card</Button>
        </div>
        {!shown.readable && (
          <p role="alert" className="mt-4 font-medium text-heat">
            <Words of={shown.said} />
          </p>
        )}
        <div className="mt-4 grid gap-x-10 gap-y-6 md:grid-cols-2">
          <GoesIn dish={shown} />
          <div className="grid content-start gap-6">
            {shown.begins && <ComesTo id={id} people={shown.people} place={place} onPlace={setPlace} />}
            <Brings dish={shown} />
            <Noted dish={shown} />
          </div>
        </div>
        <Became dish={shown} />
        {arranges && <Change key={shown.number} dish={shown} />}
      </main>
    </>
  )
}

function Part({ name, children }: { name: string; children: ReactNode }) {
  return (
    <section aria-label={name}>
      <h2 className="text-base font-semibold text-quiet">{name}</h2>
      {children}
    </section>
  )
}

function GoesIn({ dish }: { dish: HouseDish }) {
  const say = useSay()
  return (
    <div className="grid content-start gap-4">
      <Part name={`For ${dish.people}`}>
        {dish.lines.length === 0 && <p>What went in was not told: it begins with the strained liquid.</p>}
        <ul className="divide-y divide-line">
          {dish.lines.map(({ line, amount }, at) => (
            <li key={at} className="flex items-baseline gap-3 py-1 text-lg leading-snug">
              <span className="min-w-0 flex-1 break-words">{line.text}</span>
              {amount && <span className="shrink-0 text-base text-quiet">{say(amount)}</span>}
            </li>
          ))}
        </ul>
      </Part>
      {dish.cooked && (
        <Part name="Cooked">
          <p className="text-lg">
            <Words of={dish.cooked} />
          </p>
        </Part>
      )}
      {(dish.wanted ?? dish.way) && (
        <Part name="The sauce">
          {dish.wanted && (
            <p className="text-lg">
              <Words of={dish.wanted} />
            </p>
          )}
          {dish.way && (
            <p className="text-quiet">
              <Words of={dish.way} />
            </p>
          )}
        </Part>
      )}
      {dish.stirred_in.length > 0 && (
        <Part name="Stirred in later">
          <ul>
            {dish.stirred_in.map(({ name, amount }, at) => (
              <li key={at} className="py-1 text-lg leading-snug break-words">
                {say(amount)} {name}
              </li>
            ))}
          </ul>
        </Part>
      )}
    </div>
  )
}

/** What of it somebody may not have, by what was told. */
function Brings({ dish }: { dish: HouseDish }) {
  if (dish.allergens.length === 0) return null
  return (
    <Part name="Brings">
      <p>
        <b>{dish.allergens.join(', ')}</b>, by what was told of it. <span className="text-quiet">Labels of what you bought come first.</span>
      </p>
    </Part>
  )
}

/** Notes of its batches that nobody has minded yet. */
function Noted({ dish }: { dish: HouseDish }) {
  if (dish.notes.length === 0) return null
  return (
    <Part name="Next time">
      <ul className="grid gap-1">
        {dish.notes.map((one) => (
          <li key={one.note}>
            <span className="text-quiet">{one.label}:</span> <b>{one.text}</b>
          </li>
        ))}
      </ul>
    </Part>
  )
}

/** What was made of it, and how it was changed. */
function Became({ dish }: { dish: HouseDish }) {
  const say = useSay()
  const change = useChangeDish(dish.id)
  const batches = useQuery<Schemas['BatchPage'], Problem>({
    queryKey: [...keys.batches, 'of', dish.id],
    queryFn: ({ signal }) => answer(client.GET('/api/v1/batches', { params: { query: { house_dish: dish.id } }, signal })),
  })
  const made = batches.data?.items ?? []
  const compared = made.filter(({ finished }) => finished).slice(0, 4)
  return (
    <div className="mt-8 grid gap-x-10 gap-y-6 md:grid-cols-2 print:hidden">
      <Part name="Made of it">
        {made.length === 0 && <p className="text-quiet">{batches.isPending ? 'They are being fetched.' : 'Nothing yet.'}</p>}
        <ul className="divide-y divide-line">
          {made.map((batch) => (
            <li key={batch.id} className="py-1.5">
              <Link href={`/batches/${batch.id}`} className="inline-flex min-h-12 items-center font-semibold break-words underline">
                {batch.name}
              </Link>{' '}
              <span className="text-quiet">
                {inDays(batch.created_at)}
                {batch.volume && <>, {say(batch.volume)}</>}
                {batch.how && <>, {batch.how}</>}
              </span>
            </li>
          ))}
        </ul>
        {compared.length > 1 && (
          <Link href={`/compare?${new URLSearchParams(compared.map(({ id }) => ['of', id])).toString()}`} className="inline-flex min-h-12 items-center font-semibold underline">
            Put the last {compared.length} side by side
          </Link>
        )}
      </Part>
      <Part name="Versions">
        <ol className="divide-y divide-line">
          {dish.versions.map((version) => (
            <li key={version.number} className="py-1.5">
              <div className="flex flex-wrap items-baseline gap-x-2">
                <b>{version.number}</b>
                <span className="min-w-0 flex-1 text-quiet">
                  {inDays(version.at)}
                  {version.by && <>, {version.by}</>}
                </span>
                {version.number !== dish.number && (
                  <button type="button" className="min-h-12 font-semibold underline" onClick={() => change.mutate({ back_to: version.number })}>
                    Back to {version.number}
                  </button>
                )}
              </div>
              {version.changes.length > 0 && (
                <ul className="text-base">
                  {version.changes.map((one, at) => (
                    <li key={at}>
                      <Words of={one} />
                    </li>
                  ))}
                </ul>
              )}
            </li>
          ))}
        </ol>
        {change.isError && (
          <p role="alert" className="font-medium text-heat">
            {change.error.message}
          </p>
        )}
      </Part>
    </div>
  )
}

/** What of a dish is changed without cooking it: its name, how thick and how salty it is to be, and whether it is kept. */
function Change({ dish }: { dish: HouseDish }) {
  const units = use(Units)
  const change = useChangeDish(dish.id)
  const [name, setName] = useState(dish.name)
  const [salt, setSalt] = useState('')
  return (
    <section aria-label="Change it" className="mt-8 grid gap-4 border-t border-line pt-4 print:hidden">
      <form
        className="flex flex-wrap items-end gap-2"
        onSubmit={(event) => {
          event.preventDefault()
          change.mutate({ ...(name !== dish.name && { name }), ...(salt.trim() && { salt_percent: salt }) })
        }}
      >
        <TextField label="Name" value={name} onChange={setName} error={change.error?.at('name')} autoComplete="off" className="min-w-48 flex-1 sm:max-w-sm" />
        {dish.salt_percent !== null && <TextField label="Salt, %" inputMode="decimal" placeholder={dish.salt_percent.toFixed(2)} value={salt} onChange={setSalt} error={change.error?.at('salt_percent')} autoComplete="off" className="w-32" />}
        {dish.body !== null && <Pick label="How thick" value={String(dish.body)} onPick={(next) => change.mutate({ body: Number(next) })} options={dish.bodies.map((label, at) => ({ value: String(at), label }))} />}
        <Button type="submit" disabled={change.isPending || (name === dish.name && !salt.trim())}>
          Keep the change
        </Button>
      </form>
      <p className="flex flex-wrap items-center gap-x-5">
        <a href={`/api/v1/house-dishes/${dish.id}/files/recipe.jsonld?units=${units}&people=${dish.people}`} download className="inline-flex min-h-12 items-center font-semibold underline">
          As a recipe, JSON-LD
        </a>
        <button type="button" className="min-h-12 font-semibold underline" onClick={() => change.mutate({ retired: !dish.retired })}>
          {dish.retired ? 'Bring it back' : 'Put it away'}
        </button>
        {dish.retired && <span className="text-quiet">It is put away: its batches and its versions stay.</span>}
      </p>
    </section>
  )
}
