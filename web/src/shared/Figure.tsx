import type { ReactNode } from 'react'
import type { Schemas } from '../api/client'
import { Explain } from './Explain'
import { Words } from './units'
import { Unfold } from '../ui/Unfold'

type Reason = Schemas['ReasonOut']

interface Props {
  label: string
  value: ReactNode
  note?: ReactNode
  /** The arithmetic behind it; tapping the figure unfolds it. */
  reason?: Reason | undefined
  tone?: string
  /** The key of what it means, and the question that leads there. */
  explains?: [of: string, question: string]
}

/** A figure to read from a metre away. Tap it, and its arithmetic unfolds. */
export function Figure({ label, value, note, reason, tone = '', explains }: Props) {
  const face = (
    <>
      <span className="block text-base text-quiet">
        {label}
        {reason && (
          <span aria-hidden="true" className="ml-1.5 inline-grid size-5 place-items-center rounded-full border border-current align-text-bottom text-xs">
            =
          </span>
        )}
      </span>
      <span data-of={label} className={`block text-3xl leading-tight md:text-[2.6rem] font-bold tracking-tight ${tone}`}>{value}</span>
      {note && <span className="block text-base text-quiet">{note}</span>}
    </>
  )
  if (!reason) return <div>{face}</div>
  return (
    <Unfold summary={face} label="how it comes about">
      <Words of={reason.how} />
      {explains && (
        <span className="block text-ink">
          <Explain of={explains[0]}>{explains[1]}</Explain>
        </span>
      )}
    </Unfold>
  )
}

/** The reason of a figure, by its key. */
export function reasonOf(reasons: readonly Reason[] | undefined, key: string): Reason | undefined {
  return reasons?.find((reason) => reason.key === key)
}

/** One line of arithmetic after another. */
export function Reasons({ reasons }: { reasons: readonly Reason[] }) {
  return (
    <dl className="grid gap-1.5">
      {reasons.map((reason, i) => (
        <div key={i}>
          <dt className="inline font-semibold">{reason.what}: </dt>
          <dd className="inline"><Words of={reason.how} /></dd>
        </div>
      ))}
    </dl>
  )
}
