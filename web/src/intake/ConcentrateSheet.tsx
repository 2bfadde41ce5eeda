import { useState } from 'react'
import { useConcentrate, useReadLines } from '../api/previews'
import type { Line } from '../api/types'
import { useExample, useSay, Words } from '../shared/units'
import { Button } from '../ui/Button'
import { Sheet } from '../ui/Sheet'
import { TextField } from '../ui/TextField'
import { useSettled } from '../shared/useSettled'
import { Rest } from '../shared/Rest'

interface Props {
  onClose: () => void
  onMade: (lines: readonly Line[]) => void
}

/** Stock made up from a concentrate: how much of it, and of water, make exactly so much. */
export function ConcentrateSheet({ onClose, onMade }: Props) {
  const eg = useExample()
  const say = useSay()
  const [what, setWhat] = useState('chicken concentrate')
  const [parts, setParts] = useState('2')
  const [water, setWater] = useState('7')
  const [volume, setVolume] = useState(eg('1.8 l', '2 qt'))
  const key = JSON.stringify([parts, water, volume])
  const said = useSettled({ volume_ml: volume, concentrate_parts: parts, water_parts: water }, 160, key)
  const complete = [volume, parts, water].every((text) => text.trim() !== '')
  const made = useConcentrate(complete ? said : null)
  const read = useReadLines()
  const problem = made.error ?? read.error
  return (
    <Sheet open onClose={onClose} title="Stock from a concentrate" description="Parts by volume, as its label gives them.">
      <form
        className="grid gap-4"
        onSubmit={(event) => {
          event.preventDefault()
          read.mutate(
            { text: `${parts} parts ${what} to ${water} parts water, ${volume}` },
            {
              onSuccess: (found) => {
                onMade(found.lines)
                onClose()
              },
            },
          )
        }}
      >
        <TextField label="Which concentrate" value={what} onChange={setWhat} autoComplete="off" />
        <div className="grid grid-cols-3 gap-3">
          <TextField label="Parts of it" inputMode="decimal" value={parts} onChange={setParts} error={problem?.at('concentrate_parts', 'parts')} />
          <TextField label="Parts of water" inputMode="decimal" value={water} onChange={setWater} error={problem?.at('water_parts')} />
          <TextField label="In all" value={volume} onChange={setVolume} error={problem?.at('volume_ml')} />
        </div>
        {made.data && !problem && (
          <div aria-live="polite">
            <p className="text-2xl font-bold">
              {say(made.data.concentrate)} of it, {say(made.data.water)} of water
            </p>
            <p className="text-quiet"><Words of={made.data.mind} /></p>
          </div>
        )}
        <Rest problem={problem} beside={['concentrate_parts', 'parts', 'water_parts', 'volume_ml']} />
        <Button type="submit" look="main" disabled={!complete || !what.trim() || read.isPending}>
          Put both in the list
        </Button>
      </form>
    </Sheet>
  )
}
