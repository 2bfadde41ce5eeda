import { useState } from 'react'
import { useLists } from '../api/lists'
import type { Batch } from '../api/types'
import { useSay, Words } from '../shared/units'
import { Button } from '../ui/Button'
import { Choice } from '../ui/Choice'
import { Popover } from '../ui/Popover'
import { TextField } from '../ui/TextField'
import { useBench } from './useBench'

/** How it is heated, as a word to tap: what is said here is what the forecast goes by. */
export function HeatControl() {
  const { batch, onRecord } = useBench()
  const [open, setOpen] = useState(false)
  const say = useSay()
  const { covers, heats } = useLists()
  const { heat } = batch
  const now = heat.key
  const [oven, setOven] = useState<string | null>(null)
  const [hold, setHold] = useState<string | null>(null)
  // What is in it must not boil: that is asked, and taken all the same.
  const [asked, setAsked] = useState<string | null>(null)
  const set = (next: string, cover: Batch['heat']['cover']) => {
    const row = heats.find((h) => h.key === next)
    if (row?.heat === 'boil' && heat.guard && asked !== next) return setAsked(next)
    setAsked(null)
    if (row) onRecord({ kind: 'heated', heat: row.heat, share: row.share, cover, oven_c: oven ?? heat.oven.value, hold_c: hold ?? heat.hold.value, never_on: false })
    setOpen(false)
  }
  const words = `${heats.find((h) => h.key === now)?.label ?? ''}${heat.cover === 'open' ? '' : `, ${covers.find((c) => c.key === heat.cover)?.label ?? ''}`}`
  return (
    <Popover
      open={open}
      onOpen={setOpen}
      label="Heat"
      className="inline-flex min-h-12 items-center gap-2 rounded-xl border-2 border-line bg-panel px-4 text-[1.05rem] font-semibold hover:border-ink"
      trigger={
        <span>
          Heat: {words}
          {!heat.told && heat.heat !== 'off' && <span className="font-normal text-quiet">, as usual</span>}
        </span>
      }
    >
      <div className="grid gap-4">
        <Choice label="It is on" layout="pairs" value={now} onChange={(next) => set(next, heat.cover)} options={heats.map((h) => ({ value: h.key, label: h.label }))} />
        {now !== 'off' && <Choice label="The pan is" layout="pairs" value={heat.cover} onChange={(cover) => set(now, cover)} options={covers.map((c) => ({ value: c.key, label: c.label }))} />}
        {(now === 'oven' || now === 'hold') && (
          <form
            className="flex items-end gap-2"
            onSubmit={(event) => {
              event.preventDefault()
              set(now, heat.cover)
            }}
          >
            {now === 'oven' ? (
              <TextField label="The oven is at" value={oven ?? say(heat.oven)} onChange={setOven} />
            ) : (
              <TextField label="It is kept at" value={hold ?? say(heat.hold)} onChange={setHold} />
            )}
            <Button type="submit">Set</Button>
          </form>
        )}
        {asked && heat.guard && (
          <div role="alert" className="grid gap-2 rounded-xl border-2 border-heat p-3">
            <p className="font-semibold">
              <Words of={heat.guard} />
            </p>
            <div className="flex flex-wrap gap-2">
              <Button look="main" onClick={() => { setAsked(null); setOpen(false) }}>
                Leave it as it is
              </Button>
              <Button onClick={() => set(asked, heat.cover)}>Boil it all the same</Button>
            </div>
          </div>
        )}
        <Button onClick={() => setOpen(false)}>Done</Button>
      </div>
    </Popover>
  )
}
