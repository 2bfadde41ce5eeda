import { useState } from 'react'
import { useLists } from '../api/lists'
import type { Batch, Payload } from '../api/types'
import { useExample, useSay, Words } from '../shared/units'
import { FatLine } from '../figures/FatLine'
import { Button } from '../ui/Button'
import { Choice } from '../ui/Choice'
import { Unfold } from '../ui/Unfold'
import { TextField } from '../ui/TextField'
import { Cautions } from '../shared/Cautions'
import { CoolingCard, CoolingClock } from './CoolingCard'
import { Figure, reasonOf } from '../shared/Figure'
import { IngredientSearch } from '../shared/IngredientSearch'
import { wantedAgain } from './plan/wish'
import { Chilling } from './Chilling'
import { useBench } from './useBench'

type Skim = NonNullable<Batch['skim']>
type Way = Skim['ways'][number]

/** The time that a cooling pot has left. */
export function Beneath() {
  const { batch } = useBench()
  return batch.cooling && <CoolingClock cooling={batch.cooling} />
}

/** Fat off: the ways, what each leaves and costs, and the one it was done by. */
export default function SkimPanel() {
  const { batch } = useBench()
  const { skim } = batch
  return skim === null ? <p className="text-lg">How to take the fat off cannot be worked out here. Spoon it off.</p> : <Ways skim={skim} />
}

function Ways({ skim }: { skim: Skim }) {
  const { batch, onRecord } = useBench()
  const say = useSay()
  const { pot, cooling, wanted } = batch
  const [picked, setPicked] = useState<Way['way'] | null>(null)
  const advised = skim.ways.find((way) => way.advised)
  const way = skim.ways.find((w) => w.way === (picked ?? (cooling ? 'chill' : advised?.way)))
  const able = skim.ways.filter((one) => !one.barred || one === way)
  const barred = skim.ways.filter((one) => !able.includes(one))
  const { fat_rests: rests } = useLists()
  if (pot.fat.value <= 0 && !cooling) return <p className="text-lg">No fat floats on it: there is nothing to take off.</p>
  return (
    <div className="grid gap-4">
      <div className="grid grid-cols-2 gap-4 sm:grid-cols-3">
        <Figure
          label="fat on top"
          explains={['fat', 'Which fat is meant?']}
          value={say(pot.fat)}
          note={`${say(pot.fat_depth)} thick, ${say(skim.fat)}`}
          tone="text-fat-ink"
          reason={reasonOf(pot.reasons, 'fat')}
        />
        <Figure label="to leave on" value={say(skim.rest)} note={`${say(skim.rest_in)}${wanted ? '' : ', as most do'}`} />
        <Figure label="liquid below" value={say(pot.liquid)} note={`± ${say(pot.liquid_error)}`} />
      </div>
      {cooling && <CoolingCard cooling={cooling} />}
      <div role="radiogroup" aria-label="Way to take the fat off" className="flex flex-wrap items-start gap-2">
        <div className="grid justify-items-center gap-0.5 border-2 border-transparent px-2 py-2 text-center leading-tight">
          <FatLine share={1} tone={pot.tone} />
          <span className="font-bold">now</span>
          <span className="text-quiet">{say(pot.fat)}</span>
        </div>
        {able.map((one) => (
          <WayPot key={one.way} way={one} tone={pot.tone} picked={one === way} onPick={() => setPicked(one.way)} />
        ))}
      </div>
      {way && <TakeOff key={way.way} way={way} cooling={cooling !== null} />}
      {barred.length > 0 && (
        <Unfold
          label="the ways that do not suit this pot"
          summary={<span className="inline-flex min-h-12 items-center font-semibold underline">{barred.length === 1 ? 'One way' : `${barred.length} ways`} not for this pot, and why</span>}
        >
          <ul className="grid gap-1 pt-1">
            {barred.map((one) => (
              <li key={one.way}>
                <button type="button" className="font-semibold underline" onClick={() => setPicked(one.way)}>
                  {one.label}
                </button>
                : {one.barred && <Words of={one.barred} />}
              </li>
            ))}
          </ul>
        </Unfold>
      )}
      {wanted && (
        <Choice
          label="Fat to leave on"
          value={rests.find((rest) => rest.g_per_100_ml === skim.rest_g_per_100_ml)?.key}
          onChange={(key) => {
            const rest = rests.find((one) => one.key === key)
            if (rest) onRecord(wantedAgain(wanted, { fat_g_per_100_ml: rest.g_per_100_ml }))
          }}
          options={rests.map((rest) => ({ value: rest.key, label: rest.label }))}
        />
      )}
      <ul className="grid gap-1">
        {[skim.roux, skim.per_portion, skim.sets, skim.settling].map((said, i) => said && <li key={i}><Words of={said} /></li>)}
        {skim.kept && <li>{say(skim.kept)} of fat kept so far.</li>}
      </ul>
      <Cautions cautions={skim.cautions} />
    </div>
  )
}

/** A way as the pot that it would leave, and how long it takes. */
function WayPot({ way, tone, picked, onPick }: { way: Way; tone: number; picked: boolean; onPick: () => void }) {
  const say = useSay()
  return (
    <button
      type="button"
      role="radio"
      aria-checked={picked}
      onClick={onPick}
      className={`grid w-36 justify-items-center gap-0.5 rounded-xl border-2 bg-panel px-1 py-2 text-center leading-tight hover:border-quiet ${picked ? 'border-ink' : 'border-transparent'}`}
    >
      <FatLine share={1 - way.share} tone={tone} />
      <span className="font-bold">{way.label}</span>
      <span className="text-quiet">{way.time}</span>
      <span className="text-quiet">
        leaves <b className="text-ink">{say(way.leaves)}</b>
      </span>
      {way.advised && <span className="font-semibold text-done">best here</span>}
    </button>
  )
}

interface TakeOffProps {
  way: Way
  cooling: boolean
}

/** What one way costs, and the taps that say it was done. */
function TakeOff({ way, cooling }: TakeOffProps) {
  const eg = useExample()
  const { onRecord, problem } = useBench()
  const say = useSay()
  const [amount, setAmount] = useState('')
  const [ice, setIce] = useState(way.ice ? `${Math.round(way.ice.value)} g` : '')
  const [dissolved, setDissolved] = useState(eg('300 ml', '1 1/4 cups'))
  const [liquid, setLiquid] = useState<string | null>(null)
  const [kept, setKept] = useState<'kept' | 'binned'>('kept')
  const done = (): Payload => ({
    kind: 'skimmed',
    way: way.way,
    kept: kept === 'kept',
    ...(amount.trim() && { fat_ml: amount }),
    ...(way.way === 'ice' && { ice_g: ice }),
    ...(way.way === 'boil_dry' && { dissolved_ml: dissolved, ingredient: liquid }),
  })
  return (
    <form
      aria-label={way.label}
      className="grid gap-x-6 gap-y-3 lg:grid-cols-2"
      onSubmit={(event) => {
        event.preventDefault()
        onRecord(done())
      }}
    >
      <div className="grid content-start gap-3">
        {way.barred && <p className="border-l-4 border-heat pl-3 font-medium"><Words of={way.barred} /></p>}
        <ul className="grid gap-1.5 leading-snug">
          {way.costs.map((cost, i) => (
            <li key={i}>
              <Words of={cost} />
            </li>
          ))}
        </ul>
        <div className="flex flex-wrap gap-2">
          <Button type="submit" look="main">
            The fat is off
          </Button>
          <Button onClick={() => onRecord({ kind: 'skimmed', way: 'spoon', fat_ml: 0, kept: false })}>Leave it on</Button>
        </div>
      </div>
      <div className="grid content-start gap-3">
      {way.way === 'chill' && !cooling && <SetToCool />}
      {way.way === 'ice' && <TextField label="Ice that melted into the pot" value={ice} onChange={setIce} error={problem?.at('ice_g')} />}
      {way.way === 'boil_dry' && (
        <>
          <TextField label="Liquid to dissolve what sticks" value={dissolved} onChange={setDissolved} error={problem?.at('dissolved_ml')} />
          <IngredientSearch label="Which liquid, if not water" placeholder="cider" value={liquid} onChange={setLiquid} />
        </>
      )}
      <TextField label="Fat that came off, if you measured it" placeholder={say(way.takes)} value={amount} onChange={setAmount} error={problem?.at('fat_ml')} autoComplete="off" />
      <Choice
        label="The fat is"
        hideLabel
        value={kept}
        onChange={setKept}
        options={[
          { value: 'kept', label: 'kept' },
          { value: 'binned', label: 'thrown away' },
        ]}
      />
      </div>
    </form>
  )
}

function SetToCool() {
  const eg = useExample()
  const { onRecord, problem } = useBench()
  const [celsius, setCelsius] = useState(eg('90 °C', '195 °F'))
  const { cooling_places: places } = useLists()
  const [key, setKey] = useState<string | null>(null)
  const place = places.find((p) => p.key === key) ?? places[0]
  return (
    <div className="grid gap-3 rounded-xl border border-line p-3">
      <p>Chill it strained, with the meat in, or as a finished sauce. The clock is the same.</p>
      <Chilling what="pot" />
      <TextField label="It is now at" value={celsius} onChange={setCelsius} error={problem?.at('celsius')} />
      <Choice label="It cools in a" value={place?.key} onChange={setKey} options={places.map((p) => ({ value: p.key, label: p.label }))} />
      <Button disabled={!place} onClick={() => place && onRecord({ kind: 'cooling', celsius, surroundings_c: place.celsius.value })}>
        Set it to cool now
      </Button>
    </div>
  )
}
