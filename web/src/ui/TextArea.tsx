import { useId, type TextareaHTMLAttributes } from 'react'
import { Labelled, written } from './Labelled'

interface Props extends Omit<TextareaHTMLAttributes<HTMLTextAreaElement>, 'onChange'> {
  label: string
  error?: string | undefined
  onChange: (value: string) => void
}

/** Several lines to type on. */
export function TextArea({ label, error, onChange, className, ...rest }: Props) {
  const id = useId()
  const field = written(id, error)
  return (
    <Labelled id={id} label={label} error={error} className={className}>
      <textarea {...rest} {...field} className={`${field.className} py-2.5`} onChange={(event) => onChange(event.target.value)} />
    </Labelled>
  )
}
