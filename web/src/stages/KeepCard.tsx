import { Suspense, useState } from 'react'
import { Link } from 'wouter'
import { useLists } from '../api/lists'
import type { Payload } from '../api/types'
import { JarLine } from '../shared/JarLine'
import { useExample, useSay } from '../shared/units'
import { Button } from '../ui/Button'
import { Choice } from '../ui/Choice'
import { part } from '../ui/part'
import { TextField } from '../ui/TextField'
import { Chilling } from './Chilling'
import { useBench } from './useBench'

const KeepSheet = part(() => import('./KeepSheet'))

/** What is left of a batch: how it would cool, how it does, and what of it is kept. */
export function KeepCard() {
  const { batch, busy, onRecord } = useBench()
  const say = useSay()
  const [keeps, setKeeps] = useState(false)
  const aside = batch.keepable.find(({ what }) => what === 'rest')
  const left = batch.finished ? batch.keepable.find(({ what }) => what === 'sauce') : undefined
  if (!aside && !left && batch.shelf.length === 0) return null
  return (
    <section aria-label="What is left" className="grid gap-3">
      <h2 className="text-lg">{aside ? `${say(aside.volume)} stands aside` : 'What is left'}</h2>
      {(aside || (left && batch.shelf.length === 0)) && <Chilling what={aside ? 'rest' : 'sauce'} />}
      {aside && <RestProbe />}
      <div className="flex flex-wrap gap-3">
        {batch.keepable.length > 0 && <Button onClick={() => setKeeps(true)}>Keep it in the fridge or the freezer</Button>}
        {aside && !batch.finished && (
          <Button disabled={busy} onClick={() => onRecord({ kind: 'returned' })}>
            Pour it back in
          </Button>
        )}
      </div>
      {batch.shelf.length > 0 && (
        <ul className="grid gap-x-6 gap-y-2 sm:grid-cols-2">
          {batch.shelf.map((jar) => (
            <li key={jar.id}>
              <Link href={`/shelf/${jar.id}`} className="block rounded-lg border-2 border-line p-3 hover:border-ink">
                <JarLine jar={jar} />
              </Link>
            </li>
          ))}
        </ul>
      )}
      {keeps && (
        <Suspense>
          <KeepSheet onClose={() => setKeeps(false)} />
        </Suspense>
      )}
    </section>
  )
}

/** How warm it is by now, and in what it stands. */
function RestProbe() {
  const { busy, onRecord, problem } = useBench()
  const { cooling_places: places } = useLists()
  const eg = useExample()
  const [celsius, setCelsius] = useState('')
  const [place, setPlace] = useState<string>()
  const around = places.find(({ key }) => key === (place ?? places[0]?.key))?.celsius.value
  return (
    <form
      className="flex flex-wrap items-end gap-3"
      onSubmit={(event) => {
        event.preventDefault()
        onRecord({ kind: 'rest', rest: 'cooling', celsius, surroundings_c: around } as Payload, () => setCelsius(''))
      }}
    >
      <Choice label="It stands in" value={place ?? places[0]?.key} onChange={setPlace} options={places.map(({ key, label }) => ({ value: key, label }))} />
      <TextField label="Its temperature" placeholder={eg('38 °C', '100 °F')} value={celsius} onChange={setCelsius} error={problem?.at('celsius')} autoComplete="off" className="w-44" />
      <Button type="submit" disabled={!celsius.trim() || busy}>
        Keep the temperature
      </Button>
      <Button disabled={busy} onClick={() => onRecord({ kind: 'rest', rest: 'cold' })}>
        It is cold
      </Button>
    </form>
  )
}
