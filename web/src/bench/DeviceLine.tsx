import type { Batch, Payload } from '../api/types'
import { clock } from '../shared/clock'
import { Words } from '../shared/units'
import { Button } from '../ui/Button'

/** What a device reads by itself; where it contradicts the ledger, what went in is asked for. */
export function DeviceLine({ device, onRecord }: { device: Batch['devices'][number]; onRecord: (payload: Payload) => void }) {
  return (
    <div className={`flex flex-wrap items-center gap-x-4 ${device.problem ? 'w-full rounded-xl border-2 border-heat px-4 py-2' : 'text-quiet'}`}>
      <p role={device.problem ? 'alert' : undefined}>
        <span className="font-semibold">{device.name}</span>, {clock(device.at)}: <Words of={device.problem ?? device.text} />
      </p>
      {device.answers.map(({ label, payload }, i) => (
        <Button key={i} onClick={() => onRecord(payload as unknown as Payload)}>
          <Words of={label} />
        </Button>
      ))}
    </div>
  )
}
