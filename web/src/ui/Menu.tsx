import { Suspense, useState, type ReactNode } from 'react'
import { part } from './part'

export interface MenuProps {
  label: string
  trigger: ReactNode
  items: { label: string; onSelect: () => void }[]
}

// What places it is as much as a stage, and nobody needs it before the first tap.
const MenuList = part(() => import('./MenuList'))

/** A small menu behind a pill. */
export function Menu(props: MenuProps) {
  const [asked, setAsked] = useState(false)
  const closed = (
    <button type="button" aria-label={props.label} aria-haspopup="menu" className="pill" onClick={() => setAsked(true)}>
      {props.trigger}
    </button>
  )
  return asked ? (
    <Suspense fallback={closed}>
      <MenuList {...props} />
    </Suspense>
  ) : (
    closed
  )
}
