import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { answer, client, type Problem, type Schemas } from '../api/client'
import { keys } from '../api/keys'
import { useSettled } from '../shared/useSettled'
import { useExample, useSay } from '../shared/units'
import { Button } from '../ui/Button'
import { Sheet } from '../ui/Sheet'
import { TextField } from '../ui/TextField'

type Pan = Schemas['PanOut']
type Poured = Schemas['Poured']

/** A pan's measurements without what only the kitchen page needs. */
export function specOf(pan: Pan): Schemas['Pan'] {
  const { name, shape, base_length_mm, base_width_mm, rim_length_mm, rim_width_mm, height_mm, empty_g } = pan
  return { name, shape, base_length_mm, base_width_mm, rim_length_mm, rim_width_mm, height_mm, empty_g }
}

/** Known volumes poured in and dipped: the pan that fits them takes the place of the one that was measured. */
export function CalibrateSheet({ pan, onClose }: { pan: Pan; onClose: () => void }) {
  const eg = useExample()
  const say = useSay()
  const queries = useQueryClient()
  const [rows, setRows] = useState<Poured[]>([{ volume_ml: '', depth_mm: '' }])
  const poured = rows.filter((row) => String(row.volume_ml).trim() && String(row.depth_mm).trim())
  const body = useSettled({ pan: specOf(pan), poured }, 200, JSON.stringify(poured))
  const fit = useQuery<Schemas['CalibrationOut'], Problem>({
    queryKey: ['calibration', body],
    queryFn: ({ signal }) => answer(client.POST('/api/v1/previews/calibration', { body, signal })),
    enabled: body.poured.length > 0,
    retry: false,
  })
  const save = useMutation<unknown, Problem, Schemas['Pan']>({
    mutationFn: (spec) => answer(client.PUT('/api/v1/pans/{pan_id}', { params: { path: { pan_id: pan.id } }, body: spec })),
    onSuccess: async () => {
      await queries.invalidateQueries({ queryKey: keys.kitchen })
      onClose()
    },
  })
  const set = (at: number, part: Partial<Poured>) => {
    const next = rows.map((row, i) => (i === at ? { ...row, ...part } : row))
    const last = next.at(-1)
    if (last && String(last.volume_ml).trim() && String(last.depth_mm).trim() && next.length < 30) next.push({ volume_ml: '', depth_mm: '' })
    setRows(next)
  }
  const wrong = fit.error
  return (
    <Sheet
      open
      onClose={onClose}
      title={`Calibrate ${pan.name}`}
      description="Stand it level. Pour a known volume of cold water in and dip it; pour more, dip again. Each line is all that is in it by then."
    >
      <form
        className="grid gap-4"
        onSubmit={(event) => {
          event.preventDefault()
          if (fit.data) save.mutate({ ...fit.data.pan })
        }}
      >
        <ul className="grid gap-2">
          {rows.map((row, at) => (
            <li key={at} className="grid grid-cols-[1fr_1fr_6rem] items-end gap-2">
              <TextField label="Volume in all" hideLabel={at > 0} placeholder={eg('500 ml', '2 cups')} value={String(row.volume_ml)} onChange={(volume_ml) => set(at, { volume_ml })} autoComplete="off" />
              <TextField label="Depth" hideLabel={at > 0} placeholder={eg('11 mm', '1/2 in')} value={String(row.depth_mm)} onChange={(depth_mm) => set(at, { depth_mm })} autoComplete="off" />
              <span className="pb-3 text-quiet">{fit.data?.misses[at] && at < poured.length ? `± ${say(fit.data.misses[at])}` : ''}</span>
            </li>
          ))}
        </ul>
        {wrong && <p role="alert" className="font-medium text-heat">{wrong.message}</p>}
        {fit.data && !wrong && (
          <p aria-live="polite">
            By these dips it is <b>{say(fit.data.base)}</b> wide at the base and <b>{say(fit.data.rim)}</b> at the rim, and holds{' '}
            <b>{say(fit.data.capacity)}</b>; as it was measured, {say(fit.data.measured_capacity)}.
          </p>
        )}
        {save.error && <p role="alert" className="font-medium text-heat">{save.error.message}</p>}
        <Button type="submit" look="main" disabled={!fit.data || wrong !== null || save.isPending}>
          Go by the dips from now on
        </Button>
      </form>
    </Sheet>
  )
}
