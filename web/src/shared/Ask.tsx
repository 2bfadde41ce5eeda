import { useState, type ReactNode } from 'react'
import { Button } from '../ui/Button'
import { Choice } from '../ui/Choice'
import { Popover } from '../ui/Popover'

interface AskProps {
  label: string
  /** The words as they stand; null while nobody has said it. */
  said: ReactNode
  /** What stands there instead. */
  unsaid?: string
  wrong?: boolean
  /** Nobody has said it: it is taken for granted until somebody does. */
  assumed?: boolean
  ink?: string
  children: (close: () => void) => ReactNode
}

/** A value under its name, that can be tapped and said otherwise. */
export function Ask({ label, said, unsaid = '…', wrong, assumed = false, ink = '', children }: AskProps) {
  const [open, setOpen] = useState(false)
  const edge = wrong
    ? 'border-heat font-bold text-heat'
    : said === null
      ? 'border-dashed border-quiet font-bold text-quiet'
      : assumed
        ? `border-dotted border-quiet font-medium italic ${ink || 'text-quiet'}`
        : `border-transparent font-bold ${ink}`
  return (
    <Popover
      open={open}
      onOpen={setOpen}
      label={label}
      className="block min-h-12 max-w-full min-w-0 rounded-lg px-1.5 py-0.5 text-left leading-tight hover:bg-panel data-[state=open]:bg-panel"
      trigger={
        <>
          <span aria-hidden="true" className="block text-sm leading-tight text-quiet">
            {label}
          </span>
          <span className="sr-only">
            {label}
            {assumed && ', assumed'}:{' '}
          </span>
          <span className={`inline-block max-w-full border-b-2 align-top text-lg leading-tight ${edge}`}>{said ?? unsaid}</span>
        </>
      }
    >
      {children(() => setOpen(false))}
    </Popover>
  )
}

/** A word whose popover is a small form; Enter and Done both close it. */
export function AskForm({ children, ...ask }: Omit<AskProps, 'children'> & { children: ReactNode }) {
  return (
    <Ask {...ask}>
      {(close) => (
        <form
          className="grid gap-3"
          onSubmit={(event) => {
            event.preventDefault()
            close()
          }}
        >
          {children}
          <Button type="submit">Done</Button>
        </form>
      )}
    </Ask>
  )
}

/** What is wrong with the words above, a sentence each. */
export function Wrong({ texts }: { texts: readonly (string | undefined)[] }) {
  return texts.filter(Boolean).map((text) => (
    <p key={text} role="alert" className="font-medium text-heat">
      {text}
    </p>
  ))
}

interface PickProps<T extends string> {
  label: string
  value: T | null
  unsaid?: string
  wrong?: boolean
  assumed?: boolean
  options: readonly { value: T; label: string; hint?: string; disabled?: boolean; said?: string }[]
  onPick: (value: T) => void
}

/** A word with a few others in its place: one tap opens them, one picks. */
export function Pick<T extends string>({ label, value, unsaid, wrong, assumed = false, options, onPick }: PickProps<T>) {
  const now = options.find((option) => option.value === value)
  return (
    <Ask label={label} assumed={assumed} said={now ? (now.said ?? now.label) : null} {...(unsaid !== undefined && { unsaid })} {...(wrong !== undefined && { wrong })}>
      {(close) => (
        <Choice
          label={label}
          layout="stack"
          value={value ?? undefined}
          options={options}
          onAgain={close}
          onChange={(next) => {
            onPick(next)
            close()
          }}
        />
      )}
    </Ask>
  )
}
