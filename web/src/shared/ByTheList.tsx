import type { Estimated, Said } from '../api/types'
import { useSay, Words } from './units'
import { SpanBar } from '../figures/SpanBar'
import { Unfold } from '../ui/Unfold'
import { Cautions } from './Cautions'
import { Reasons } from './Figure'

interface Props {
  estimated: Estimated
  doubt: Said | null
}

const inks: Record<string, string> = { salt: 'var(--salt)', fat: 'var(--fat-ink)' }

/** What the list says of the liquid: a best guess and its range for each, and the terms it comes from. */
export function ByTheList({ estimated, doubt }: Props) {
  const say = useSay()
  const { alcohol, liquid } = estimated
  const likely = (span: typeof liquid) => `likely ${say(span.low)} to ${say(span.high)}`
  const rows = [
    { name: 'liquid', label: 'strained liquid', span: liquid, percent: null, reasons: estimated.liquid_reasons },
    ...estimated.figures,
  ]
  return (
    <section aria-label="By the list" className="grid gap-3">
      <h2 className="text-lg">By the list</h2>
      {doubt && (
        <p role="status" className="border-l-4 border-salt pl-4 font-medium">
          <Words of={doubt} />
        </p>
      )}
      <ul className="grid gap-x-8 sm:grid-cols-2">
        {rows.map((row) => (
          <li key={row.name} className="border-b border-line py-1.5">
            <Unfold
              label="how it comes about"
              summary={
                <span className="grid min-h-12 grid-cols-[1fr_auto] items-center gap-x-3">
                  <span>{row.label}</span>
                  <span className="text-xl font-bold">{say(row.span.best)}</span>
                  <SpanBar low={row.span.low.value} best={row.span.best.value} high={row.span.high.value} ink={inks[row.name] ?? 'var(--quiet)'} />
                  <span className="text-right text-sm text-quiet">
                    {row.span.low.value === row.span.high.value ? 'as measured' : likely(row.span)}
                    {row.percent && (
                      <span className="block">
                        {[...new Set([row.percent.low, row.percent.high].map((end) => end.toFixed(2)))].join(' to ')} % of it
                      </span>
                    )}
                  </span>
                </span>
              }
            >
              <Reasons reasons={row.reasons} />
            </Unfold>
          </li>
        ))}
        {alcohol.rule !== 'none' && (
          <li className="border-b border-line py-1.5 sm:col-span-2">
            <p className="flex flex-wrap items-baseline gap-x-3">
              <span className="flex-1">alcohol</span>
              <span className="text-xl font-bold">{alcohol.grams.best.toFixed(1)} g</span>
              <span className="text-sm text-quiet">
                likely {alcohol.grams.low.toFixed(1)} to {alcohol.grams.high.toFixed(1)} g, {alcohol.percent.low.toFixed(2)} to {alcohol.percent.high.toFixed(2)} % vol
              </span>
            </p>
            <p className="text-[0.95rem] leading-snug text-quiet">
              <Words of={alcohol.why} /> {alcohol.caution && <Words of={alcohol.caution} />}
            </p>
          </li>
        )}
      </ul>
      {estimated.allergens.length > 0 && (
        <p>
          <b>Allergens by the list:</b> {estimated.allergens.join(', ')}. <span className="text-quiet">Labels of what you bought come first.</span>
        </p>
      )}
      <Cautions cautions={estimated.cautions} />
    </section>
  )
}
