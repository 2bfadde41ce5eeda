import type { ReactNode } from 'react'
import { useReasons } from '../../api/ways'
import type { Route, Wanted } from '../../api/types'
import { useSay, Words } from '../../shared/units'
import { Reasons } from '../../shared/Figure'
import { Choice } from '../../ui/Choice'
import { Unfold } from '../../ui/Unfold'
import { useBench } from '../useBench'

interface Props {
  route: Route
  /** What it leads to, and whether that stands still. */
  wanted: Wanted
  settled: boolean
  /** The same way with another thickener, or with none; itself among them. */
  binders: readonly Route[]
  onPick: (kind: Route['kind']) => void
  /** Another way to thicken is asked for. */
  onOthers: () => void
  /** It is the way that was taken. */
  chosen: boolean
}

/** The way in hand: what to do, what binds it, what comes of it, how long; its arithmetic unfolds. */
export function WayCard({ route, wanted, settled, binders, onPick, onOthers, chosen }: Props) {
  const say = useSay()
  const binder = binders.length > 1 && (
    <Choice
      label="Thickened with"
      hideLabel
      value={route.kind}
      onChange={onPick}
      options={binders.map((one) => ({
        value: one.kind,
        // Two of the same flour are told by how it is made.
        label: (binders.filter((other) => other.dry_name === one.dry_name).length > 1 ? one.thickener : one.dry_name) ?? 'nothing',
      }))}
    />
  )
  return (
    <section aria-label="The way in hand" className="border-t-[3px] border-ink pt-2">
      <div className="grid grid-cols-2 gap-x-6 gap-y-3 lg:grid-cols-[1.8fr_1fr_1.2fr_1fr_0.7fr]">
        <div className="col-span-2 lg:col-span-1">
          <p className="text-quiet">{chosen ? <span className="font-semibold text-done">your way</span> : route.recommended ? 'first choice' : 'the way in hand'}</p>
          <h3 className="text-xl leading-tight">{route.label}</h3>
          {route.feasible ? (
            <>
              <p className="leading-snug text-quiet">{route.because && <Words of={route.because} />}</p>
              {route.instead && <p className="leading-snug text-quiet"><Words of={route.instead} /></p>}
            </>
          ) : (
            <p className="leading-snug font-medium text-heat">{route.reason && <Words of={route.reason} />}</p>
          )}
        </div>
        {!route.feasible ? null : (
          <>
            <Part
              name="do"
              figure={route.take ? `take ${say(route.take)}` : route.let_down ? `+ ${say(route.let_down)}` : route.leave ? say(route.mark ?? route.boil_to) : 'no boiling'}
            >
              {route.let_down && (route.take ? <>stir in <b>{say(route.let_down)}</b> of unsalted stock, or water; </> : <>of unsalted stock, or water, stirred in. </>)}
              {route.leave ? (
                <>
                  {route.take ? <>boil it to <b>{say(route.mark ?? route.boil_to)}</b>: </> : 'left in the pan: '}
                  {say(route.boil_to)}
                  {route.gross && <>, scale {say(route.gross)}</>}
                </>
              ) : route.take ? (
                'the rest is kept'
              ) : (
                !route.let_down && 'nothing is boiled away'
              )}
            </Part>
            <Part
              name="thicken"
              figure={route.dry ? say(route.dry) : 'nothing'}
              beneath={
                <>
                  {binder}
                  {route.dry && (
                    <button type="button" className="min-h-12 text-left font-semibold underline" onClick={onOthers}>
                      Another way to thicken
                    </button>
                  )}
                </>
              }
            >
              {route.dry ? (
                <>
                  {route.dry_name}
                  {route.dry_also && <> ({say(route.dry_also)})</>}
                  {route.carrier && <> with {say(route.carrier)} of {route.carrier_name}</>}
                  {route.keep && <>; before, keep <b>{say(route.keep)}</b> for another meal</>}
                </>
              ) : (
                'nothing is added'
              )}
            </Part>
            <Part name="you get" ink="text-salt" figure={`${route.salt_after.best.toFixed(2)} %`}>
              salt{route.salt_to_add && <> with {say(route.salt_to_add)}{route.salt_to_add_also && <> ({say(route.salt_to_add_also)})</>} more</>}; {say(route.volume)}, {route.body.everyday}. Taste: <Words of={route.tastes} />
            </Part>
            <Part name="time" figure={say(route.takes)}>
              in all{route.allergens.length > 0 && `; brings ${route.allergens.join(', ')}`}
            </Part>
          </>
        )}
      </div>
      {/* What to mind is not folded away. */}
      {route.feasible && route.notes.length > 0 && (
        <ul className="mt-1">
          {route.notes.map((note, i) => (
            <li key={i}><Words of={note} /></li>
          ))}
        </ul>
      )}
      <div className="flex flex-wrap items-start gap-x-6 gap-y-1">
        {!route.feasible && binder}
        {route.feasible && (
          <Unfold
            className="min-w-64 flex-1"
            label={`this way: ${route.label}`}
            summary={<span className="inline-flex min-h-12 items-center font-semibold underline">Why</span>}
          >
            {route.leave && <p className="mb-1.5"><Words of={route.leave} /></p>}
            <Why route={route} wanted={wanted} settled={settled} />
          </Unfold>
        )}
      </div>
    </section>
  )
}

/** The arithmetic of a way: asked for once it is wanted. */
function Why({ route, wanted, settled }: { route: Route; wanted: Wanted; settled: boolean }) {
  const { batch } = useBench()
  const { data, error, isPlaceholderData } = useReasons(batch.id, batch.last_seq, wanted, route, settled)
  if (data && !error) return <div className={settled && !isPlaceholderData ? '' : 'opacity-45'}><Reasons reasons={data} /></div>
  return <p role="status">{error ? error.message : 'It is being worked out.'}</p>
}

interface PartProps {
  name: string
  figure: string
  ink?: string
  /** What may be chosen instead. */
  beneath?: ReactNode
  children: ReactNode
}

function Part({ name, figure, ink = '', beneath, children }: PartProps) {
  return (
    <div>
      <p className="text-quiet">{name}</p>
      <p data-of={name} className={`text-2xl leading-tight font-bold md:text-[1.7rem] ${ink}`}>{figure}</p>
      <p className="leading-snug text-quiet">{children}</p>
      {beneath && <div className="mt-1">{beneath}</div>}
    </div>
  )
}
