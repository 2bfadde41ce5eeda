import { useState } from 'react'
import { useKitchen, useLists, type Schemas } from '../api/hooks'
import { SkewerLink } from '../shared/SkewerLink'
import { useExample, useSay, Words } from '../shared/units'
import { Button } from '../ui/Button'
import { Choice } from '../ui/Choice'
import { Sheet } from '../ui/Sheet'
import { TextField } from '../ui/TextField'
import { Unfold } from '../ui/Unfold'
import { Figure, reasonOf } from '../shared/Figure'
import { ByTheList } from '../shared/ByTheList'
import { useBench } from './useBench'

type Draw = Schemas['DrawOut']['key']

const methods = { jug: 'a jug', eye: 'the eye', dip: 'a dip', scale: 'the scale' }

/** What is in the pot, with the arithmetic of every figure; and what else may leave it or stay in it. */
export default function StrainPanel() {
  const { batch, onOpen, onRecord } = useBench()
  const say = useSay()
  const { pot } = batch
  const [sheet, setSheet] = useState<'draw' | 'solids' | null>(null)
  const reason = (key: string) => reasonOf(pot.reasons, key)
  return (
    <div className="grid gap-6">
      <div className="grid gap-x-6 gap-y-4 grid-cols-2 sm:grid-cols-3">
        <Figure label="liquid" value={say(pot.liquid)} note={`± ${say(pot.liquid_error)}`} reason={reason('liquid')} />
        <Figure
          label="salt"
          tone="text-salt"
          value={`${pot.salt.best.toFixed(2)} %`}
          note={`likely ${pot.salt.low.toFixed(2)} to ${pot.salt.high.toFixed(2)} %`}
          reason={reason('salt')}
        />
        <Figure label="body" value={pot.body.everyday} note={pot.body.does} reason={reason('body')} />
      </div>
      <div className="flex flex-wrap gap-2">
        <Button onClick={() => onOpen('correct')}>Correct the start</Button>
        {!batch.finished && <Button onClick={() => setSheet('draw')}>Draw off a part</Button>}
        {!batch.finished && <Button onClick={() => setSheet('solids')}>{pot.solids ? 'Meat is out, or less' : 'Meat is in the pan'}</Button>}
        <SkewerLink path={`/api/v1/batches/${batch.id}/skewer`} />
      </div>
      {pot.solids && <p>{say(pot.solids)} of meat or vegetables stand in the liquid: they count in depth and weight, and trade salt with it.</p>}
      {pot.kept && (
        <p className="flex flex-wrap items-center gap-3">
          {say(pot.kept)} of liquid stayed on the meat.
          <Button onClick={() => onRecord({ kind: 'returned' })}>Pour it back in</Button>
        </p>
      )}
      <Unfold label="" summary={<span className="inline-flex min-h-11 items-center text-lg font-semibold underline decoration-dotted">What it is made of, part by part</span>}>
        <ul className="grid gap-x-8 text-base text-ink sm:grid-cols-2">
          {pot.contents.map((row) => (
            <li key={row.name} className="border-b border-line py-1">
              <Unfold
                label="how it comes about"
                summary={
                  <span className="flex min-h-11 items-center justify-between gap-3">
                    <span>{row.name}</span>
                    <span>
                      <span className="font-bold">{say(row.mass)}</span>
                      <span className="ml-2 inline-block w-20 text-right whitespace-nowrap text-quiet">{row.percent.toFixed(2)} %</span>
                    </span>
                  </span>
                }
              >
                <Words of={row.how} />
              </Unfold>
            </li>
          ))}
        </ul>
      </Unfold>
      {batch.estimated && <ByTheList estimated={batch.estimated} doubt={batch.doubt} />}
      <div>
        <h2 className="mb-2 text-lg">Measuring this pot</h2>
        <ul className="flex flex-wrap gap-x-8 gap-y-2">
          {pot.methods.map((method) => (
            <li key={method.method} className={method.usable ? '' : 'text-quiet line-through'}>
              <span className={method.best ? 'font-bold text-done' : ''}>{methods[method.method]}</span>: ± {say(method.error)}
              {method.best && <span className="text-done">, best here</span>}
            </li>
          ))}
        </ul>
      </div>
      {sheet === 'draw' && <DrawSheet onClose={() => setSheet(null)} />}
      {sheet === 'solids' && <SolidsSheet onClose={() => setSheet(null)} />}
    </div>
  )
}

interface SheetProps {
  onClose: () => void
}

function DrawSheet({ onClose }: SheetProps) {
  const eg = useExample()
  const { batch, onRecord, problem } = useBench()
  const say = useSay()
  const { draws } = useLists()
  const kitchen = useKitchen()
  const [volume, setVolume] = useState('')
  const [how, setHow] = useState<Draw>()
  const [panId, setPan] = useState<string>()
  const [burnerId, setBurner] = useState(kitchen.data?.burners.find((b) => b.name === batch.burner)?.id)
  const pans = kitchen.data?.pans ?? []
  return (
    <Sheet open onClose={onClose} title="Draw off a part" description={`For the sauce, into a pan of its own. The rest of the ${say(batch.pot.liquid)} stays on the meat and keeps it moist.`}>
      <form
        className="grid gap-4"
        onSubmit={(event) => {
          event.preventDefault()
          if (panId && burnerId) onRecord({ kind: 'drawn', volume_ml: volume, pan_id: panId, burner_id: burnerId, ...(how && { how }) }, onClose)
        }}
      >
        <TextField label="How much, as the jug shows it" placeholder={eg('400 ml', '1 3/4 cups')} value={volume} onChange={setVolume} error={problem?.at('volume_ml')} autoFocus autoComplete="off" />
        {batch.pot.fat.value > 0 && (
          <Choice
            label="Drawn"
            layout="stack"
            value={how}
            onChange={setHow}
            options={draws.map(({ key, label }) => ({ value: key, label }))}
          />
        )}
        <Choice label="Into which pan" value={panId} onChange={setPan} options={pans.map((pan) => ({ value: pan.id, label: pan.name }))} />
        <Choice
          label="On which burner"
          value={burnerId}
          onChange={setBurner}
          options={(kitchen.data?.burners ?? []).map((burner) => ({ value: burner.id, label: burner.name }))}
        />
        <Button type="submit" look="main" disabled={!volume.trim() || !panId || !burnerId || (batch.pot.fat.value > 0 && !how)}>
          Drawn off
        </Button>
      </form>
    </Sheet>
  )
}

function SolidsSheet({ onClose }: SheetProps) {
  const eg = useExample()
  const { batch, onRecord, problem } = useBench()
  const say = useSay()
  const [mass, setMass] = useState('')
  return (
    <Sheet open onClose={onClose} title="Meat or vegetables in the pan" description="They take up room and weight, and trade salt with the liquid. Half then means half of the liquid.">
      <form
        className="grid gap-4"
        onSubmit={(event) => {
          event.preventDefault()
          onRecord({ kind: 'solids', mass_g: mass }, onClose)
        }}
      >
        <TextField label={batch.pot.solids ? `In the pan now, instead of ${say(batch.pot.solids)}` : 'Their weight'} placeholder={eg('1.1 kg', '2 1/2 lb')} value={mass} onChange={setMass} error={problem?.at('mass_g')} autoFocus autoComplete="off" />
        <Button type="submit" look="main" disabled={!mass.trim()}>
          They are in the pan
        </Button>
        {batch.pot.solids && <Button onClick={() => onRecord({ kind: 'solids', mass_g: 0 }, onClose)}>All lifted out</Button>}
      </form>
    </Sheet>
  )
}
