import { RadioGroup } from 'radix-ui'
import { use, type ReactNode } from 'react'
import { LooksOn } from './LooksOn'

interface Option<T extends string> {
  value: T
  label: ReactNode
  hint?: string
  disabled?: boolean
}

interface Props<T extends string> {
  label: string
  value: T | undefined
  options: readonly Option<T>[]
  onChange: (value: T) => void
  /** The one that is chosen already was tapped. */
  onAgain?: () => void
  /** `row` lets the options run on; `cards` gives each room for its hint; `pairs` sets two on a line. */
  layout?: 'row' | 'cards' | 'stack' | 'pairs'
  hideLabel?: boolean
}

const frames = { row: 'flex flex-wrap gap-1.5', cards: 'grid gap-2 sm:grid-cols-3', stack: 'grid gap-1.5', pairs: 'grid grid-cols-2 gap-1.5' }

/** One of a few, each a button to tap. */
export function Choice<T extends string>({ label, value, options, onChange, onAgain, layout = 'row', hideLabel }: Props<T>) {
  const looksOn = use(LooksOn)
  return (
    <div>
      <p aria-hidden="true" className={hideLabel ? 'sr-only' : 'mb-1.5 text-base text-quiet'}>
        {label}
      </p>
      <RadioGroup.Root
        aria-label={label}
        value={value ?? ''}
        disabled={looksOn}
        onValueChange={(next) => onChange(next as T)}
        className={frames[layout]}
      >
        {options.map((option) => (
          <RadioGroup.Item
            key={option.value}
            value={option.value}
            disabled={option.disabled}
            onClick={() => option.value === value && onAgain?.()}
            className="group min-h-12 rounded-xl border-2 border-line bg-panel px-3.5 py-1.5 text-left font-medium hover:border-quiet disabled:opacity-45 data-[state=checked]:border-ink data-[state=checked]:bg-ink data-[state=checked]:text-ground"
          >
            <span className="block">{option.label}</span>
            {option.hint && <span className="block text-sm leading-snug font-normal opacity-80">{option.hint}</span>}
          </RadioGroup.Item>
        ))}
      </RadioGroup.Root>
    </div>
  )
}
