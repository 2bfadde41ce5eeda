import { useState } from 'react'
import { useIngredients } from '../api/kitchens'
import { useSettled } from './useSettled'
import { Choice } from '../ui/Choice'
import { TextField } from '../ui/TextField'

interface Props {
  label: string
  placeholder: string
  value: string | null
  onChange: (key: string) => void
}

/** An ingredient of the catalogue or the kitchen's own, found by typing. */
export function IngredientSearch({ label, placeholder, value, onChange }: Props) {
  const [sought, setSought] = useState('')
  const found = useIngredients(useSettled(sought, 160))
  return (
    <div className="grid gap-2">
      <TextField label={label} placeholder={placeholder} value={sought} onChange={setSought} autoComplete="off" />
      <Choice
        label="Found"
        hideLabel
        layout="stack"
        value={value ?? undefined}
        onChange={onChange}
        options={(found.data ?? []).slice(0, 6).map((i) => ({ value: i.key, label: i.name, hint: i.own ? 'your own' : '' }))}
      />
      {found.data?.length === 0 && sought.trim() && <p className="text-quiet">Nothing of that name in the catalogue. Try a simpler word.</p>}
    </div>
  )
}
