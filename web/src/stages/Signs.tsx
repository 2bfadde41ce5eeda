import { useState } from 'react'
import { useLists } from '../api/lists'
import { Popover } from '../ui/Popover'
import { Toggle } from '../ui/Toggle'
import { useBench } from './useBench'

/** What is seen, heard and smelt, behind one button: what would say something of this pot, and what was said already. */
export function Signs() {
  const { batch, onRecord } = useBench()
  const { signs } = useLists()
  const [open, setOpen] = useState(false)
  const asked = signs.filter(({ key }) => batch.signs_asked.includes(key) || batch.signs.includes(key))
  if (asked.length === 0) return null
  return (
    <Popover
      open={open}
      onOpen={setOpen}
      label="Seen in the pan"
      className="inline-flex min-h-12 items-center gap-2 rounded-xl border-2 border-line bg-panel px-4 text-[1.05rem] font-semibold hover:border-ink"
      trigger={
        <span>
          Seen in the pan{batch.signs.length > 0 && <span className="font-normal text-quiet">, {batch.signs.length} so far</span>}
        </span>
      }
    >
      <div role="group" aria-label="Seen in the pan" className="flex flex-wrap gap-1.5">
        {asked.map(({ key: sign, label }) => (
          <Toggle key={sign} label={label} on={batch.signs.includes(sign)} onTap={() => onRecord({ kind: 'seen', sign })} />
        ))}
      </div>
    </Popover>
  )
}
