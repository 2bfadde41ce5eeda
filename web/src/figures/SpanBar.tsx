interface Props {
  low: number
  best: number
  high: number
  ink: string
}

/** A range on a scale that begins at nothing: a band from low to high, and a tick at the best value. */
export function SpanBar({ low, best, high, ink }: Props) {
  const at = (value: number) => `${high > 0 ? (94 * value) / high : 0}%`
  return (
    <svg className="h-3 w-full" aria-hidden="true">
      <line x1="0" x2="100%" y1="6" y2="6" stroke="var(--line)" strokeWidth="3" />
      <line x1={at(low)} x2={at(high)} y1="6" y2="6" stroke={ink} strokeWidth="5" opacity="0.45" />
      <line x1={at(best)} x2={at(best)} y1="0" y2="12" stroke={ink} strokeWidth="4" />
    </svg>
  )
}
