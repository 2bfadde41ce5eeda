import { Popover as Radix } from 'radix-ui'
import type { PopoverProps } from './Popover'

/** The controls once they were asked for. */
export default function OpenPopover({ open, onOpen, trigger, label, className = '', children }: PopoverProps) {
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
