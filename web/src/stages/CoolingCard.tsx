import { useState } from 'react'
import type { Batch } from '../api/types'
import { clock } from '../shared/clock'
import { turnOfDay } from '../shared/wall'
import { useNow } from '../shared/useNow'
import { spanUntil, useExample, useSay } from '../shared/units'
import { CoolingCurve } from '../figures/CoolingCurve'
import { DueClock } from '../figures/DueClock'
import { Button } from '../ui/Button'
import { TextField } from '../ui/TextField'
import { Cautions } from '../shared/Cautions'
import { useBench } from './useBench'

/** A pot on its way to cold: its temperatures against the limits. */
export function CoolingCard({ cooling }: { cooling: NonNullable<Batch['cooling']> }) {
  const eg = useExample()
  const { onRecord, problem } = useBench()
  const say = useSay()
  const [celsius, setCelsius] = useState('')
  const points = (list: typeof cooling.readings) => list.map((r) => ({ at: Date.parse(r.at), celsius: r.celsius }))
  return (
    <section aria-label="Cooling" className="grid gap-3">
      <h2 className="text-lg">Cooling in surroundings of {say(cooling.surroundings)}</h2>
      <CoolingCurve
        readings={points(cooling.readings)}
        forecast={points(cooling.forecast)}
        limits={cooling.limits.map((limit) => ({ celsius: limit.celsius, by: limit.by === null ? null : Date.parse(limit.by), label: say(limit.shown) }))}
        from={Date.parse(cooling.began)}
        clock={clock}
      />
      <form
        className="flex flex-wrap items-end gap-3"
        onSubmit={(event) => {
          event.preventDefault()
          onRecord({ kind: 'probed', celsius }, () => setCelsius(''))
        }}
      >
        <TextField
          label="Temperature in the thickest part"
          placeholder={eg('38 °C', '100 °F')}
          value={celsius}
          onChange={setCelsius}
          error={problem?.at('celsius')}
          autoComplete="off"
          className="w-64"
        />
        <Button type="submit" look="main" disabled={!celsius.trim()}>
          Keep the temperature
        </Button>
      </form>
      <Cautions cautions={cooling.cautions} />
    </section>
  )
}

/** How long until a cooling pot must have met its next limit. */
export function CoolingClock({ cooling }: { cooling: NonNullable<Batch['cooling']> }) {
  const say = useSay()
  const now = useNow()
  const next = cooling.due
  if (!next?.by) return null
  const due = Date.parse(next.by)
  return (
    <div className="mt-2 flex items-center gap-5">
      <DueClock now={now} due={due} turn={turnOfDay} />
      <p>
        <span className="block text-quiet">down to {say(next.shown)} by {clock(due)}</span>
        <span className={`block text-4xl leading-tight font-bold ${due > now ? '' : 'text-heat'}`}>{due > now ? spanUntil(due, now) : 'past'}</span>
        <span className="block text-quiet">{due > now ? 'left' : 'it had to be there by then'}</span>
      </p>
    </div>
  )
}
