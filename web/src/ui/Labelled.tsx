import type { ReactNode } from 'react'

interface Props {
  id: string
  label: string
  error?: string | undefined
  hint?: string | undefined
  hideLabel?: boolean | undefined
  className?: string | undefined
  children: ReactNode
}

/** What is written on, under its label; what is wrong with it stands right below. */
export function Labelled({ id, label, error, hint, hideLabel, className = '', children }: Props) {
  return (
    <div className={className}>
      <label htmlFor={id} className={hideLabel ? 'sr-only' : 'mb-1.5 block text-base text-quiet'}>
        {label}
      </label>
      {children}
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

/** How what is written on looks, and is told to a screen reader. */
export const written = (id: string, error?: string, hint?: string) => ({
  id,
  'aria-invalid': error ? true : undefined,
  'aria-describedby': error ? `${id}-error` : hint ? `${id}-hint` : undefined,
  className: 'min-h-12 w-full rounded-xl border-2 border-line bg-panel px-3.5 text-lg placeholder:text-quiet/70 focus:border-ink aria-invalid:border-heat',
})
