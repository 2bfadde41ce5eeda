import { Collapsible } from 'radix-ui'
import type { ReactNode } from 'react'

interface Props {
  /** What is always in sight; tapping it unfolds the rest. */
  summary: ReactNode
  /** Said after the summary by a screen reader. */
  label: string
  children: ReactNode
  className?: string
}

/** Something that unfolds in place: tap a figure, and its arithmetic opens below it. */
export function Unfold({ summary, label, children, className = '' }: Props) {
  return (
    <Collapsible.Root className={className}>
      <Collapsible.Trigger className="block w-full rounded-lg text-left">
        {summary}
        <span className="sr-only">{label}</span>
      </Collapsible.Trigger>
      <Collapsible.Content className="mt-1 border-l-2 border-line pl-3 text-[0.95rem] leading-snug text-quiet">
        {children}
      </Collapsible.Content>
    </Collapsible.Root>
  )
}
