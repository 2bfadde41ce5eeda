import { Suspense, useState, type ReactNode } from 'react'
import { part } from './part'

export interface PopoverProps {
  open: boolean
  onOpen: (open: boolean) => void
  /** What opens it, and what it is called. */
  trigger: ReactNode
  label: string
  className?: string
  children: ReactNode
}

// What places it is as much as a stage, and nobody needs it before the first tap.
const OpenPopover = part(() => import('./OpenPopover'))

/** A few controls beside the word they belong to. */
export function Popover(props: PopoverProps) {
  const { open, onOpen, trigger, className = '' } = props
  const [asked, setAsked] = useState(open)
  if (open && !asked) setAsked(true)
  const closed = (
    <button type="button" aria-haspopup="dialog" aria-expanded={false} className={className} onClick={() => onOpen(true)}>
      {trigger}
    </button>
  )
  return asked ? (
    <Suspense fallback={closed}>
      <OpenPopover {...props} />
    </Suspense>
  ) : (
    closed
  )
}
