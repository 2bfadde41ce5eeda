import { Popover as Radix } from 'radix-ui'
import type { ReactNode } from 'react'

interface Props {
  open: boolean
  onOpen: (open: boolean) => void
  /** What opens it, and what it is called. */
  trigger: ReactNode
  label: string
  className?: string
  children: ReactNode
}

/** A few controls beside the word they belong to. */
export function Popover({ open, onOpen, trigger, label, className = '', children }: Props) {
  return (
    <Radix.Root open={open} onOpenChange={onOpen}>
      <Radix.Trigger className={className}>{trigger}</Radix.Trigger>
      <Radix.Portal>
        <Radix.Content
          aria-label={label}
          align="start"
          sideOffset={6}
          collisionPadding={12}
          className="z-40 max-h-[var(--radix-popover-content-available-height)] w-[min(26rem,calc(100vw-1.5rem))] overflow-y-auto rounded-2xl border border-line bg-ground p-4 text-ink shadow-xl"
        >
          {children}
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  )
}
