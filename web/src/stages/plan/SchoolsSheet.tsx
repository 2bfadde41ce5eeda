import { useState } from 'react'
import { useSchools, type SchoolKey } from '../../api/ways'
import type { Route, Wanted } from '../../api/types'
import { Dollop } from '../../figures/Dollop'
import { useSay, Words } from '../../shared/units'
import { Sheet } from '../../ui/Sheet'
import { Toggle } from '../../ui/Toggle'
import { Unfold } from '../../ui/Unfold'
import { useBench } from '../useBench'

interface Props {
  wanted: Wanted
  /** The way in hand: the others are made like it. */
  like: Route
  onPick: (school: SchoolKey, kind: Route['kind']) => void
  onClose: () => void
}

/** Another way to thicken: what each school takes on this pot, how its sauce looks, tastes and lasts. */
export default function SchoolsSheet({ wanted, like, onPick, onClose }: Props) {
  const { batch } = useBench()
  const say = useSay()
  const [frozen, setFrozen] = useState(false)
  const [bySpoon, setBySpoon] = useState(false)
  const schools = useSchools(batch.id, batch.last_seq, wanted, like, { frozen, by_spoon: bySpoon })
  return (
    <Sheet open onClose={onClose} title="Another way to thicken" description="For this pot and this wish. What you pick is worked out on the plan; nothing is done yet.">
      {schools.isError && (
        <p role="alert" className="font-medium text-heat">
          {schools.error.message}
        </p>
      )}
      <div className="flex flex-wrap gap-2">
        <Toggle label="It will be frozen" on={frozen} onTap={() => setFrozen(!frozen)} />
        <Toggle label="No scale" on={bySpoon} onTap={() => setBySpoon(!bySpoon)} />
      </div>
      {schools.data?.said.map((line, i) => (
        <p key={i} role="status" className="mt-2 text-lg font-semibold">
          <Words of={line} />
        </p>
      ))}
      <ul aria-label="Ways to thicken" className="divide-y divide-line">
        {schools.data?.fit.map((one) => (
          <li key={one.key}>
            <button type="button" aria-current={one.key === like.school ? 'true' : undefined} className="flex w-full items-start gap-3 rounded-lg py-2.5 text-left hover:bg-panel" onClick={() => onPick(one.key, one.kind as Route['kind'])}>
              <Dollop look={one.drawn} />
              <span className="min-w-0 flex-1">
                <span className="block text-lg leading-tight font-bold">
                  {one.label}
                  {one.key === like.school && <span className="font-normal text-done"> in hand</span>}
                </span>
                <span className="block">
                  <b>{say(one.dry)}</b> ({say(one.dry_also)}), {say(one.takes)} in all
                </span>
                <span className="block text-base leading-snug text-quiet">
                  {one.looks}; tastes {one.tastes}.{' '}
                  {one.lasts.map((said, i) => (
                    <span key={i}>
                      <Words of={said} />{' '}
                    </span>
                  ))}
                  {one.brings.length > 0 && <span className="text-ink">Brings {one.brings.join(', ')}.</span>}
                </span>
                {one.minds.map((said, i) => (
                  <span key={i} className="block text-base leading-snug font-semibold">
                    <Words of={said} />
                  </span>
                ))}
              </span>
            </button>
          </li>
        ))}
      </ul>
      {schools.data && schools.data.unfit.length > 0 && (
        <Unfold
          label=""
          className="mt-2"
          summary={<span className="inline-flex min-h-12 items-center font-semibold underline">{schools.data.unfit.length} that this sauce does not bear, and why</span>}
        >
          <ul className="grid gap-1 text-ink">
            {schools.data.unfit.map((one) => (
              <li key={one.key}>
                <span className="font-semibold">{one.label}:</span> <Words of={one.reason} />
              </li>
            ))}
          </ul>
        </Unfold>
      )}
    </Sheet>
  )
}
