import type { Schemas } from '../api/client'
import { useComesTo } from '../api/houseDishes'
import { useKitchen } from '../api/kitchens'
import { SmallPot } from '../figures/SmallPot'
import { Pick } from '../shared/Ask'
import { useSay, Words } from '../shared/units'

/** Where a dish is to be cooked, where somebody chose it. */
export interface Place {
  pan: string | null
  burner: string | null
}

interface Props {
  id: string
  people: number
  place: Place
  onPlace: (place: Place) => void
}

/** What the dish comes to in the pan that is taken, beside what it was kept from: both pans to one scale. */
export function ComesTo({ id, people, place, onPlace }: Props) {
  const kitchen = useKitchen()
  const pans = kitchen.data?.pans ?? []
  const burners = kitchen.data?.burners ?? []
  const { pan, burner } = place
  const told = useComesTo(id, people, pan, burner)
  const { there, here } = told.data ?? {}
  const both = [...(there && here && there.people === here.people && there.pan.name === here.pan.name ? [] : [there]), here].filter((one) => !!one)
  const widest = Math.max(...both.map((one) => one.pan.rim_length_mm), 1)
  return (
    <section aria-label="What it comes to">
      <h2 className="text-base font-semibold text-quiet">What it comes to</h2>
      <div className="mt-1 flex flex-wrap gap-2 print:hidden">
        <Pick label="In which pan" value={told.data?.pan_id ?? pan} assumed={pan === null} onPick={(next) => onPlace({ ...place, pan: next })} options={pans.map((one) => ({ value: one.id, label: one.name }))} />
        <Pick label="On which burner" value={told.data?.burner_id ?? burner} assumed={burner === null} onPick={(next) => onPlace({ ...place, burner: next })} options={burners.map((one) => ({ value: one.id, label: one.name }))} />
      </div>
      {told.isError && (
        <p role="alert" className="mt-2 font-medium text-heat">
          {told.error.message}
        </p>
      )}
      {told.data?.problem && (
        <p role="alert" className="mt-2 font-medium text-heat">
          <Words of={told.data.problem} />
        </p>
      )}
      {told.data?.apart && (
        <p className="mt-2 text-lg leading-snug font-semibold">
          <Words of={told.data.apart} />
        </p>
      )}
      <ul className="mt-2 grid gap-4">
        {both.map((one) => (
          <InPan key={`${one.people} ${one.pan.name}`} one={one} widest={widest} />
        ))}
      </ul>
    </section>
  )
}

/** The widest pan is drawn so wide, px. */
const WIDE = 240

function InPan({ one, widest }: { one: Schemas['ComesToOut']; widest: number }) {
  const say = useSay()
  const scale = (WIDE - 36) / widest
  return (
    <li className="flex flex-wrap items-end gap-x-4">
      <SmallPot
        pan={one.pan}
        depthMm={one.depth_mm}
        fatMm={one.fat_mm}
        tone={one.tone}
        stop={one.stop && { mm: one.stop.value, label: say(one.stop) }}
        onHeat={false}
        width={36 + one.pan.rim_length_mm * scale}
        height={32 + one.pan.height_mm * scale}
      />
      <div className="min-w-0 flex-1 basis-52">
        <p className="font-bold">
          For {one.people}: {say(one.liquid)} strained
        </p>
        <p className="text-sm text-quiet">
          {one.pan.name}, {one.burner}
        </p>
        <p>
          <Words of={one.said} />
        </p>
        {one.boils && (
          <p className="text-quiet">
            On the boil {one.boils.low.toFixed(0)} to {one.boils.high.toFixed(0)} min
          </p>
        )}
      </div>
    </li>
  )
}
