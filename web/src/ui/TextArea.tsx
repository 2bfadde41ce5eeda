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
  return (
    <Labelled id={id} label={label} error={error} className={className}>
      <textarea {...rest} {...written(id, error)} onChange={(event) => onChange(event.target.value)} />
    </Labelled>
  )
}
