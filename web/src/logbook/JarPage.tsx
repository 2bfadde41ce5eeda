import { useQueryClient } from '@tanstack/react-query'
import { Suspense, useState } from 'react'
import { Link } from 'wouter'
import { useAppend } from '../api/batches'
import { keys } from '../api/keys'
import { useRights } from '../api/rights'
import { useShelf, type Jar } from '../api/shelf'
import type { Payload } from '../api/types'
import { Header } from '../shared/Header'
import { Notice } from '../shared/Notice'
import { Skeleton } from '../shared/Skeleton'
import { useExample, Words } from '../shared/units'
import { Button } from '../ui/Button'
import { part } from '../ui/part'
import { TextField } from '../ui/TextField'
import { Labels } from './Labels'

const FromJar = part(() => import('./FromJar'))

/** Something that is kept: its label, and what becomes of it. */
export function JarPage({ id }: { id: string }) {
  const shelf = useShelf()
  const jar = shelf.data?.find((one) => one.id === id)
  if (shelf.isPending) return <Skeleton />
  if (shelf.isError) return <Notice title="No answer" text={shelf.error.message} onRetry={() => void shelf.refetch()} />
  if (!jar) {
    return (
      <>
        <Header title="Kept cold" />
        <p className="px-4 py-6 text-lg md:px-7">
          That is not on the shelf any more.{' '}
          <Link href="/" className="font-semibold underline">
            Back to the batches
          </Link>
        </p>
      </>
    )
  }
  return <OfJar jar={jar} />
}

function OfJar({ jar }: { jar: Jar }) {
  const { records } = useRights()
  const eg = useExample()
  const queries = useQueryClient()
  const append = useAppend(jar.batch)
  const [used, setUsed] = useState('')
  const [celsius, setCelsius] = useState('')
  const [starting, setStarting] = useState(false)
  const record = (payload: object) =>
    append.mutate({ jar: jar.id, ...payload } as Payload, {
      onSuccess: () => {
        setUsed('')
        void queries.invalidateQueries({ queryKey: keys.shelf })
      },
    })
  return (
    <>
      <div className="print:hidden">
        <Header title={jar.name} detail={`kept from ${jar.of}`} />
      </div>
      <main className="mx-auto grid max-w-6xl grid-cols-[minmax(0,1fr)] content-start gap-x-10 gap-y-6 px-4 py-5 md:px-7 lg:grid-cols-[auto_minmax(0,1fr)] lg:grid-rows-[auto_auto_1fr] print:p-0">
        {jar.past && <p role="alert" className="text-lg lg:col-span-2 font-semibold text-heat print:hidden">Past its date: throw it away. Local food rules come first.</p>}
        <div className="min-w-0 lg:row-span-3">
          <Labels jar={jar} />
        </div>
        {records && (
        <div className="flex flex-wrap items-end gap-3 print:hidden">
          <form
            className="flex flex-wrap items-end gap-3"
            onSubmit={(event) => {
              event.preventDefault()
              record({ kind: 'jar_taken', volume_ml: used, use: 'eaten' })
            }}
          >
            <TextField label="Some of it was eaten" placeholder={eg('200 ml', '3/4 cup')} value={used} onChange={setUsed} error={append.error?.at('volume_ml')} autoComplete="off" className="w-44" />
            <Button type="submit" disabled={!used.trim() || append.isPending}>
              Eaten
            </Button>
          </form>
          {jar.cold_by && (
            <Button disabled={append.isPending} onClick={() => record({ kind: 'jar_moved', place: jar.place })}>
              It is cold
            </Button>
          )}
          {jar.place === 'freezer' ? (
            <Button disabled={append.isPending} onClick={() => record({ kind: 'jar_moved', place: 'fridge' })}>
              Thaw it in the fridge
            </Button>
          ) : (
            jar.freezes && (
              <Button disabled={append.isPending} onClick={() => record({ kind: 'jar_moved', place: 'freezer' })}>
                Freeze it
              </Button>
            )
          )}
          <Button disabled={append.isPending} onClick={() => record({ kind: 'jar_taken', use: 'thrown_away' })}>
            Thrown away
          </Button>
        </div>
        )}
        <section aria-label="Warm it again" className="grid gap-3 print:hidden">
          <h2 className="text-lg">Warm it again</h2>
          <ul className="grid gap-1">
            {jar.warming.map((said, i) => (
              <li key={i}>
                <Words of={said} />
              </li>
            ))}
          </ul>
          {records && <form
            className="flex flex-wrap items-end gap-3"
            onSubmit={(event) => {
              event.preventDefault()
              record({ kind: 'jar_warmed', celsius, ...(used.trim() && { volume_ml: used }) })
            }}
          >
            <TextField label="Its temperature in the middle" placeholder={eg('74 °C', '165 °F')} value={celsius} onChange={setCelsius} error={append.error?.at('celsius')} autoComplete="off" className="w-56" />
            <Button type="submit" disabled={!celsius.trim() || append.isPending}>
              Keep the temperature
            </Button>
          </form>}
          {append.isSuccess && <p role="status" className="font-semibold">{append.data.log.at(-1) && <Words of={append.data.log.at(-1)?.text ?? []} />}</p>}
        </section>
        {append.error && !append.error.at('volume_ml') && <p role="alert" className="font-medium text-heat">{append.error.message}</p>}
        <div className="grid justify-items-start gap-2 print:hidden">
          {records && jar.taste && <Button onClick={() => setStarting(true)}>Start a batch with it</Button>}
          <p className="text-quiet">To pour it into a batch that is under way, open that one, tap Add, and choose what is kept. Local food rules and your own food-safety plan come first.</p>
        </div>
        {starting && (
          <Suspense>
            <FromJar jar={jar} onClose={() => setStarting(false)} />
          </Suspense>
        )}
      </main>
    </>
  )
}
