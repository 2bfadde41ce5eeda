import { useState } from 'react'
import type { Schemas } from '../api/client'
import { useFinishes } from '../api/finishing'
import type { Payload } from '../api/types'
import { Changes } from '../shared/Changes'
import { useSay, Words } from '../shared/units'
import { Button } from '../ui/Button'
import { Choice } from '../ui/Choice'
import { useBench } from './useBench'

type Lack = Schemas['FinishOut']['lacks']

/** What a tongue may find missing, in its own words. */
const LACKS: readonly { value: Lack; label: string }[] = [
  { value: 'salt', label: 'Salt, with more to it' },
  { value: 'sharpness', label: 'Sharpness' },
  { value: 'sweetness', label: 'Sweetness' },
  { value: 'depth', label: 'Depth' },
  { value: 'roundness', label: 'Roundness' },
  { value: 'softness', label: 'Too sharp, bitter or hot' },
  { value: 'heat', label: 'Heat' },
  { value: 'herbs', label: 'Herbs' },
]

/** What the sauce lacks, or has too much of, and the first step of what brings it, with all that it changes. */
export default function Finishes() {
  const { batch, busy, onRecord } = useBench()
  const say = useSay()
  const [lacks, setLacks] = useState<Lack>()
  const { data, error } = useFinishes(batch.id, batch.last_seq, lacks !== undefined)
  const offers = data?.filter((offer) => offer.lacks === lacks) ?? []
  return (
    <section aria-label="Finish it" className="grid gap-2">
      <Choice label="Is something missing, or too much?" value={lacks} onChange={setLacks} options={LACKS} />
      {offers.length > 0 && (batch.act.doing === 'boil' || batch.act.doing === 'heat') && (
        <p className="font-medium">Better at the end: what goes in now boils down with the rest.</p>
      )}
      {error && <p role="alert" className="font-medium text-heat">{error.message}</p>}
      <ul className="divide-y divide-line">
        {offers.map((offer) => (
          <li key={offer.key} aria-label={offer.name} className="flex items-center justify-between gap-4 py-2">
            <div className="min-w-0">
              <p className="font-semibold">
                {say(offer.amount)} {offer.name}
              </p>
              <Changes changes={offer.changes} />
              <p className="text-quiet">{offer.how}</p>
            </div>
            {offer.barred ? (
              <p className="w-40 shrink-0 text-right font-semibold text-heat"><Words of={offer.barred} /></p>
            ) : (
            <Button className="shrink-0" disabled={busy} onClick={() => onRecord(offer.payload as unknown as Payload)}>
              <span>
                It is in<span className="sr-only">: {offer.name}</span>
              </span>
            </Button>
            )}
          </li>
        ))}
      </ul>
    </section>
  )
}
