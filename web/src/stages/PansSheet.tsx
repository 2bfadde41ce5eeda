import { useState } from 'react'
import { useKitchen } from '../api/kitchens'
import { usePans } from '../api/ways'
import type { Batch } from '../api/types'
import { useExample, useSay, Words } from '../shared/units'
import { panScale, slice } from '../figures/geometry'
import { sauce } from '../figures/tone'
import { Button } from '../ui/Button'
import { Choice } from '../ui/Choice'
import { Sheet } from '../ui/Sheet'
import { TextField } from '../ui/TextField'
import { useBench } from './useBench'

/** Which pan, how hot: what each would take, and how well it can be read at the end. */
export default function PansSheet({ onClose }: { onClose: () => void }) {
  const eg = useExample()
  const { batch, onRecord, problem } = useBench()
  const say = useSay()
  const kitchen = useKitchen()
  const burners = kitchen.data?.burners ?? []
  const [burnerId, setBurner] = useState<string>()
  const burner = burnerId ?? burners.find((b) => b.name === batch.burner)?.id
  const [heat, setHeat] = useState<'boil' | 'simmer'>('boil')
  const [over, setOver] = useState('')
  const [half, setHalf] = useState<string>()
  const pans = usePans(batch.id, batch.last_seq, burner ? { burner_id: burner, heat: { heat, share: 1, cover: 'open', oven_c: batch.heat.oven.value, hold_c: batch.heat.hold.value } } : null)
  const split = pans.data?.split
  const here = pans.data?.choices.find((choice) => choice.here)?.minutes
  const quicker = pans.data?.choices.some(({ minutes }) => here && minutes && minutes.best < here.best - 1)
  return (
    <Sheet open onClose={onClose} title="Which pan, how hot" description={pans.data ? `Down to ${say(pans.data.stop)}. Wider is faster at a simmer and harder to read with a ruler.` : 'One moment.'}>
      <div className="grid gap-4">
        <Choice label="On" value={burner} onChange={setBurner} options={burners.map((b) => ({ value: b.id, label: b.name }))} />
        <Choice
          label="At"
          hideLabel
          value={heat}
          onChange={setHeat}
          options={[
            { value: 'boil', label: 'a full boil' },
            { value: 'simmer', label: 'a simmer' },
          ]}
        />
        {heat === 'boil' && here && quicker === false && (
          <p className="font-medium">No pan is quicker on this burner: a boil goes by its power. A stronger burner is, or two pans at once.</p>
        )}
        <ul className="grid gap-2">
          {pans.data?.choices.map((choice) => (
            <li key={choice.pan_id}>
              <button
                type="button"
                disabled={!choice.minutes || choice.here}
                onClick={() => onRecord({ kind: 'moved', pan_id: choice.pan_id, burner_id: choice.burner_id }, onClose)}
                className={`grid w-full grid-cols-[5.5rem_1fr_auto] items-center gap-3 rounded-xl border-2 bg-panel p-2 text-left enabled:hover:border-ink ${choice.here ? 'border-ink' : 'border-line'} ${choice.minutes ? '' : 'opacity-60'}`}
              >
                <MiniPan pan={choice.pan} depthMm={choice.end_depth.value} tone={batch.pot.tone} />
                <span className="min-w-0">
                  <span className="block font-bold">
                    {choice.pan.name}
                    {choice.here && <span className="font-normal text-quiet">, where it is</span>}
                  </span>
                  <span className="block text-sm text-quiet">
                    ends at {say(choice.end_depth)}, a dip there is good to ± {say(choice.dip_error)}
                  </span>
                  {choice.how && (
                    <span className="block text-sm text-quiet">
                      <Words of={choice.how} />
                    </span>
                  )}
                  {choice.shallow ? (
                    <span className="block text-sm font-medium text-heat">too shallow at the end: the edge scorches</span>
                  ) : (
                    choice.scorches && <span className="block text-sm font-medium text-heat">thick enough to scorch: stir</span>
                  )}
                </span>
                <span className="text-right">
                  {choice.minutes ? (
                    <>
                      <b className="text-xl">{Math.round(choice.minutes.best)} min</b>
                      <span className="block text-sm text-quiet">
                        {Math.round(choice.minutes.low)} to {Math.round(choice.minutes.high)}
                      </span>
                    </>
                  ) : (
                    <span className="text-sm">too small</span>
                  )}
                </span>
              </button>
            </li>
          ))}
        </ul>
        {batch.beside ? (
          <Button onClick={() => onRecord({ kind: 'rejoined' }, onClose)}>Pour {batch.beside} back together with this one</Button>
        ) : (
          <form
            className="grid gap-3 border-t border-line pt-4"
            onSubmit={(event) => {
              event.preventDefault()
              if (half && burner) onRecord({ kind: 'split', volume_ml: over, pan_id: half, burner_id: burner }, onClose)
            }}
          >
            {split ? (
              <p className="flex flex-wrap items-center gap-x-4 gap-y-2">
                <span className="min-w-64 flex-1">
                  <Words of={split.said} />
                </span>
                <Button onClick={() => onRecord({ kind: 'split', volume_ml: split.volume_ml, pan_id: split.pan_id, burner_id: split.burner_id }, onClose)}>Split it so</Button>
              </p>
            ) : (
              <p>Or split it over two pans.</p>
            )}
            <Choice label="Second pan" value={half} onChange={setHalf} options={(kitchen.data?.pans ?? []).filter((p) => p.name !== batch.pan.name).map((p) => ({ value: p.id, label: p.name }))} />
            <div className="flex items-end gap-2">
              <TextField label="How much of it goes over" placeholder={eg('600 ml', '2 1/2 cups')} value={over} onChange={setOver} autoComplete="off" className="flex-1" />
              <Button type="submit" disabled={!half || !over.trim()}>
                Split
              </Button>
            </div>
          </form>
        )}
        {problem && <p role="alert" className="font-medium text-heat">{problem.message}</p>}
      </div>
    </Sheet>
  )
}

function MiniPan({ pan, depthMm, tone }: { pan: Batch['pan']; depthMm: number; tone: number }) {
  const box = { x: 3, y: 3, width: 80, height: 40 }
  const s = panScale(pan, box)
  return (
    <svg viewBox="0 0 86 46" className="h-11 w-full" aria-hidden="true">
      <path d={slice(s, 0, depthMm)} fill={sauce(tone)} />
      <path d={`M${s.left(pan.height_mm)},${s.rim}L${s.left(0)},${s.floor}H${s.right(0)}L${s.right(pan.height_mm)},${s.rim}`} fill="none" stroke="var(--steel)" strokeWidth="3" strokeLinejoin="round" />
    </svg>
  )
}
