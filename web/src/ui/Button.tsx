import { use, type ButtonHTMLAttributes } from 'react'
import { LooksOn } from './LooksOn'

type Look = 'plain' | 'main' | 'bar' | 'bar-main' | 'bar-danger'

const looks: Record<Look, string> = {
  plain: 'border-line bg-panel text-ink hover:border-ink',
  main: 'border-ink bg-ink text-ground hover:opacity-90',
  bar: 'border-bar-line text-bar-ink hover:border-bar-ink',
  'bar-main': 'border-glow bg-glow text-[#1d2326] hover:brightness-105',
  'bar-danger': 'border-[#a85a44] text-[#ffb39c] hover:border-[#ffb39c]',
}

interface Props extends ButtonHTMLAttributes<HTMLButtonElement> {
  look?: Look
  /** The key that does the same, shown on the button. */
  letter?: string
}

/** A button a wet thumb can hit: 48 px high at least. */
export function Button({ look = 'plain', letter, className = '', children, type = 'button', disabled, ...rest }: Props) {
  const looksOn = use(LooksOn)
  return (
    <button
      type={type}
      disabled={looksOn || disabled}
      className={`inline-flex min-h-12 items-center justify-center gap-2 rounded-xl border-2 px-4 text-[1.05rem] font-semibold disabled:opacity-45 ${looks[look]} ${className}`}
      aria-keyshortcuts={letter}
      {...rest}
    >
      {children}
      {letter && (
        <kbd aria-hidden="true" className="hidden rounded-md border border-current px-1.5 text-sm font-medium opacity-75 md:inline">
          {letter}
        </kbd>
      )}
    </button>
  )
}
