import type { ReactNode } from 'react'
import type { Route } from '../api/hooks'
import { useSay } from '../app/units'
import { Unfold } from '../ui/Unfold'

type Reason = Route['reasons'][number]

interface Props {
  label: string
  value: ReactNode
  note?: ReactNode
  /** The arithmetic behind it; tapping the figure unfolds it. */
  reason?: Reason | undefined
  tone?: string
}

/** A figure to read from a metre away. Tap it, and its arithmetic unfolds. */
export function Figure({ label, value, note, reason, tone = '' }: Props) {
  const say = useSay()
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
      <span className={`block text-3xl leading-tight md:text-[2.6rem] font-bold tracking-tight ${tone}`}>{value}</span>
      {note && <span className="block text-base text-quiet">{note}</span>}
    </>
  )
  if (!reason) return <div>{face}</div>
  return (
    <Unfold summary={face} label="how it comes about">
      {say(reason.how)}
    </Unfold>
  )
}

/** One line of arithmetic after another. */
export function Reasons({ reasons }: { reasons: readonly Reason[] }) {
  const say = useSay()
  return (
    <dl className="grid gap-1.5">
      {reasons.map((reason) => (
        <div key={reason.what}>
          <dt className="inline font-semibold">{reason.what}: </dt>
          <dd className="inline">{say(reason.how)}</dd>
        </div>
      ))}
    </dl>
  )
}
