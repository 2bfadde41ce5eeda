import type { Problem } from '../api/client'
import { useLists } from '../api/lists'
import { TextField } from '../ui/TextField'
import { AskForm, Pick, Wrong } from '../shared/Ask'
import type { Cooked as Said } from './draft'
import { useExample, useSay } from '../shared/units'

interface Props {
  cooked: Said
  change: (part: Partial<Said>) => void
  assumed: (key: keyof Said) => boolean
  wrong: Problem | null
}

/** Each has a sentence of its own beside its word. */
export const COOKED_FIELDS = ['hours', 'oven_c'] as const

const yesNo = (yes: string, no: string) => [
  { value: 'yes' as const, label: yes },
  { value: 'no' as const, label: no },
]

/** How it was cooked and strained, a line of values to tap. */
export function Cooked({ cooked, change, assumed, wrong }: Props) {
  const eg = useExample()
  const say = useSay()
  const { covers, sieves, usual_oven, usual_hours } = useLists()
  const words = (label: string, value: string, field: 'hours' | 'oven', placeholder: string, error: string | undefined) => (
    <AskForm label={label} said={value.trim() || null} assumed={assumed(field)} wrong={Boolean(error)}>
      <TextField label={label} value={value} placeholder={placeholder} onChange={(next) => change({ [field]: next })} error={error} autoComplete="off" />
    </AskForm>
  )
  return (
    <>
      <div role="group" aria-label="How it was cooked" className="flex flex-wrap gap-x-2">
        {words('Braised for', cooked.hours ?? say(usual_hours), 'hours', '2 1/2 h', wrong?.at('hours'))}
        <Pick
          label="Where"
          value={cooked.heat}
          assumed={assumed('heat')}
          options={[
            { value: 'oven', label: 'in the oven' },
            { value: 'stove', label: 'on the stove' },
          ]}
          onPick={(heat) => change({ heat })}
        />
        {cooked.heat === 'oven' && words('Oven temperature', cooked.oven ?? say(usual_oven), 'oven', eg('150 °C', '300 °F'), wrong?.at('oven_c'))}
        <Pick
          label="Cover"
          value={cooked.cover}
          assumed={assumed('cover')}
          options={covers.map((c) => ({ value: c.key, label: c.cooked }))}
          onPick={(cover) => change({ cover })}
        />
        <Pick
          label="The meat"
          value={cooked.level}
          assumed={assumed('level')}
          options={[
            { value: 'submerged', label: 'under the liquid' },
            { value: 'nearly', label: 'nearly covered' },
            { value: 'half_way', label: 'half-way up' },
          ]}
          onPick={(level) => change({ level })}
        />
        <Pick
          label="Pieces"
          value={cooked.pieces}
          assumed={assumed('pieces')}
          options={[
            { value: 'large', label: 'large' },
            { value: 'small', label: 'small' },
          ]}
          onPick={(pieces) => change({ pieces })}
        />
        <Pick
          label="Its fat"
          value={cooked.trimmed ? 'yes' : 'no'}
          assumed={assumed('trimmed')}
          options={yesNo('trimmed off', 'left on')}
          onPick={(trimmed) => change({ trimmed: trimmed === 'yes' })}
        />
        <Pick
          label="Strained"
          value={cooked.overnight ? 'yes' : 'no'}
          assumed={assumed('overnight')}
          options={yesNo('after a night in the liquid', 'the same day')}
          onPick={(overnight) => change({ overnight: overnight === 'yes' })}
        />
        <Pick
          label="Strained through"
          value={cooked.strain}
          assumed={assumed('strain')}
          options={sieves.map((s) => ({ value: s.key, label: s.cooked, hint: s.hint }))}
          onPick={(strain) => change({ strain })}
        />
      </div>
      <Wrong texts={[wrong?.at('hours'), wrong?.at('oven_c')]} />
    </>
  )
}
