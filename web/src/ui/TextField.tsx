import { useId, type InputHTMLAttributes } from 'react'
import { Labelled, written } from './Labelled'

interface Props extends Omit<InputHTMLAttributes<HTMLInputElement>, 'onChange'> {
  label: string
  error?: string | undefined
  hint?: string
  onChange: (value: string) => void
  hideLabel?: boolean
}

/** A line to type on. */
export function TextField({ label, error, hint, onChange, hideLabel, className, ...rest }: Props) {
  const id = useId()
  return (
    <Labelled id={id} label={label} error={error} hint={hint} hideLabel={hideLabel} className={className}>
      <input {...rest} {...written(id, error, hint)} onChange={(event) => onChange(event.target.value)} />
    </Labelled>
  )
}
