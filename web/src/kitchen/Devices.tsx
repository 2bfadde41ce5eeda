import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { answer, client, type Problem, type Schemas } from '../api/client'
import { keys } from '../api/keys'
import { useBatches } from '../api/batches'
import { useDevices } from '../api/kitchens'
import type { Device } from '../api/types'
import { clock } from '../shared/clock'
import { useNow } from '../shared/useNow'
import { Button } from '../ui/Button'
import { Choice } from '../ui/Choice'
import { Sheet } from '../ui/Sheet'
import { TextField } from '../ui/TextField'

const kinds = { scale: 'scale', thermometer: 'thermometer', salt_meter: 'salt meter' }

/** Scales, thermometers and salt meters that read by themselves. */
export function Devices({ mayChange }: { mayChange: boolean }) {
  const devices = useDevices()
  const batches = useBatches()
  const queries = useQueryClient()
  const [adding, setAdding] = useState(false)
  const [assigning, setAssigning] = useState<Device | null>(null)
  const now = useNow()
  const refresh = () => queries.invalidateQueries({ queryKey: keys.devices })
  const remove = useMutation<unknown, Problem, string>({
    mutationFn: (id) => answer(client.DELETE('/api/v1/devices/{device_id}', { params: { path: { device_id: id } } })),
    onSuccess: refresh,
  })
  const assign = useMutation<unknown, Problem, { id: string; batchId: string | null }>({
    mutationFn: ({ id, batchId }) =>
      answer(client.PUT('/api/v1/devices/{device_id}/batch', { params: { path: { device_id: id } }, body: { batch_id: batchId } })),
    onSuccess: async () => {
      await refresh()
      setAssigning(null)
    },
  })
  const open = batches.data?.pages.flatMap((page) => page.items).filter((batch) => !batch.finished) ?? []
  const name = (id: string | null) => open.find((batch) => batch.id === id)?.name
  return (
    <section aria-labelledby="devices">
      <div className="mt-10 mb-4 flex flex-wrap items-end justify-between gap-3">
        <div>
          <h2 id="devices" className="mb-1 text-xl">
            Devices
          </h2>
          <p className="text-quiet">A scale under the pan, a probe or a salt meter that sends its readings over the network.</p>
        </div>
        {mayChange && <Button onClick={() => setAdding(true)}>Add a device</Button>}
      </div>
      <ul className="grid gap-3 sm:grid-cols-2 lg:grid-cols-3">
        {devices.data?.map((device) => (
          <li key={device.id} className="flex flex-col rounded-2xl border border-line bg-panel p-4">
            <p className="font-bold">{device.name}</p>
            <p className="mb-3 text-quiet">
              {kinds[device.kind]}
              {device.last_at && device.last_value !== null && ` · ${Number(device.last_value.toPrecision(4))} ${device.unit} at ${clock(device.last_at)}`}
              <br />
              {device.batch_id ? `reads ${name(device.batch_id) ?? 'a batch'}` : 'reads for no batch'}
            </p>
            <Silence device={device} now={now} />
            {mayChange && (
              <div className="mt-auto flex gap-2">
                <Button onClick={() => setAssigning(device)}>
                  <span>
                    Choose a batch<span className="sr-only"> for {device.name}</span>
                  </span>
                </Button>
                <Button onClick={() => remove.mutate(device.id)}>
                  <span>
                    Take away<span className="sr-only"> {device.name}</span>
                  </span>
                </Button>
              </div>
            )}
          </li>
        ))}
      </ul>
      {devices.data?.length === 0 && <p className="text-lg">None yet. How a home-made one speaks is written in docs/devices.md.</p>}
      {assigning && (
        <Sheet open onClose={() => setAssigning(null)} title={`What does ${assigning.name} read?`}>
          <Choice
            label="Batch"
            hideLabel
            layout="stack"
            value={assigning.batch_id ?? 'none'}
            onChange={(next) => assign.mutate({ id: assigning.id, batchId: next === 'none' ? null : next })}
            options={[{ value: 'none', label: 'nothing for now' }, ...open.map((batch) => ({ value: batch.id, label: batch.name, hint: batch.pan ?? '' }))]}
          />
        </Sheet>
      )}
      {adding && <AddSheet onClose={() => setAdding(false)} onKept={refresh} />}
    </section>
  )
}

/** A device that reads all the time is missed after this long. */
const MISSED_MS = 10 * 60_000

/** Since when nothing came of a device that should read, and what to try. */
function Silence({ device, now }: { device: Device; now: number }) {
  if (device.batch_id === null) return null
  const since = device.last_at ?? device.created_at
  if (now - Date.parse(since) < (device.last_at ? MISSED_MS : MISSED_MS / 10)) return null
  return (
    <p role="status" className="mb-3 font-medium text-heat">
      {device.last_at ? `Nothing since ${clock(since)}.` : `It has not read yet, since ${clock(since)}.`} Is it switched on, on this network, and does it
      have its token? If the token is lost, take it away and add it anew.
    </p>
  )
}

function AddSheet({ onClose, onKept }: { onClose: () => void; onKept: () => Promise<unknown> }) {
  const [name, setName] = useState('')
  const [kind, setKind] = useState<Device['kind']>('scale')
  const issue = useMutation<Schemas['IssuedOut'], Problem>({
    mutationFn: () => answer(client.POST('/api/v1/devices', { body: { name, kind } })),
    onSuccess: onKept,
  })
  return (
    <Sheet open onClose={onClose} title="A device">
      {issue.data ? (
        <div className="grid gap-4">
          <p>
            This is its token. It is shown this once: put it into the device, and choose the batch it reads.
          </p>
          <p className="rounded-xl border-2 border-ink bg-panel p-3 font-mono break-all select-all">{issue.data.token}</p>
          <Button look="main" onClick={onClose}>
            I have it
          </Button>
        </div>
      ) : (
        <form
          className="grid gap-4"
          onSubmit={(event) => {
            event.preventDefault()
            issue.mutate()
          }}
        >
          <TextField label="What you call it" placeholder="stove scale" value={name} onChange={setName} error={issue.error?.message} maxLength={60} required />
          <Choice
            label="It is a"
            value={kind}
            onChange={setKind}
            options={(['scale', 'thermometer', 'salt_meter'] as const).map((value) => ({ value, label: kinds[value] }))}
          />
          <Button type="submit" look="main" disabled={!name.trim() || issue.isPending}>
            Make its token
          </Button>
        </form>
      )}
    </Sheet>
  )
}
