import { useId, type InputHTMLAttributes } from 'react'

interface Props extends Omit<InputHTMLAttributes<HTMLInputElement>, 'onChange'> {
  label: string
  error?: string | undefined
  hint?: string
  onChange: (value: string) => void
  hideLabel?: boolean
}

/** A line to type on; what is wrong with it stands right below. */
export function TextField({ label, error, hint, onChange, hideLabel, className = '', ...rest }: Props) {
  const id = useId()
  return (
    <div className={className}>
      <label htmlFor={id} className={hideLabel ? 'sr-only' : 'mb-1.5 block text-base text-quiet'}>
        {label}
      </label>
      <input
        id={id}
        {...rest}
        onChange={(event) => onChange(event.target.value)}
        aria-invalid={error ? true : undefined}
        aria-describedby={error ? `${id}-error` : hint ? `${id}-hint` : undefined}
        className="min-h-12 w-full rounded-xl border-2 border-line bg-panel px-3.5 text-lg placeholder:text-quiet/70 focus:border-ink aria-invalid:border-heat"
      />
      {error ? (
        <p id={`${id}-error`} role="alert" className="mt-1 text-base leading-snug font-medium text-heat">
          {error}
        </p>
      ) : (
        hint && (
          <p id={`${id}-hint`} className="mt-1 text-sm leading-snug text-quiet">
            {hint}
          </p>
        )
      )}
    </div>
  )
}
