import type { Route } from '../../api/hooks'
import { useSay, Words } from '../../shared/units'
import { Button } from '../../ui/Button'
import { Unfold } from '../../ui/Unfold'
import { Reasons } from '../../shared/Figure'

interface Props {
  route: Route
  chosen: boolean
  busy: boolean
  onChoose: () => void
}

/** One way to the sauce: what it makes, what it takes, what it costs. */
export function RouteCard({ route, chosen, busy, onChoose }: Props) {
  const say = useSay()
  return (
    <li
      className={`flex flex-col gap-2 rounded-2xl border-2 bg-panel p-4 ${chosen ? 'border-done' : route.recommended ? 'border-ink' : 'border-line'}`}
      aria-label={route.label}
    >
      <div className="flex items-baseline justify-between gap-3">
        <h3 className="text-lg">{route.label}</h3>
        {chosen ? <span className="font-semibold whitespace-nowrap text-done">your way</span> : route.recommended && <span className="font-semibold whitespace-nowrap">take this one</span>}
      </div>
      {route.because && <p><Words of={route.because} /></p>}
      <div className="grid grid-cols-[auto_1fr] gap-x-4">
        <p className="text-3xl font-bold tracking-tight">{say(route.volume)}</p>
        <p className="self-end text-right text-lg font-bold text-salt">
          {route.salt_after.best.toFixed(2)} % <span className="font-normal">salt</span>
        </p>
      </div>
      <dl className="grid grid-cols-[auto_1fr] gap-x-3 leading-snug">
        {route.take && (
          <>
            <dt className="text-quiet">take</dt>
            <dd>
              <b>{say(route.take)}</b> for the sauce
            </dd>
          </>
        )}
        {route.let_down && (
          <>
            <dt className="text-quiet">stir in</dt>
            <dd>
              <b>{say(route.let_down)}</b> of unsalted stock or water
            </dd>
          </>
        )}
        <dt className="text-quiet">boil</dt>
        <dd>
          {route.leave === null ? (
            'nothing away'
          ) : (
            <>
              to <b>{say(route.boil_to)}</b>, <b>{say(route.mark)}</b>
              {route.gross && <>, scale {say(route.gross)}</>}
              <br />
              <Words of={route.leave} />
            </>
          )}
        </dd>
        {route.dry && (
          <>
            <dt className="text-quiet">bind</dt>
            <dd>
              <b>{say(route.dry)}</b>{route.dry_also && <> ({say(route.dry_also)})</>} {route.dry_name}
              {route.carrier && <> with {say(route.carrier)}</>}
              {route.carrier && route.carrier_also && <> ({say(route.carrier_also)})</>} {route.carrier_name}
            </dd>
          </>
        )}
        <dt className="text-quiet">salt</dt>
        <dd>{route.salt_to_add ? <>add {say(route.salt_to_add)}{route.salt_to_add_also && <> ({say(route.salt_to_add_also)})</>}</> : 'nothing to add'}</dd>
        <dt className="text-quiet">ends</dt>
        <dd>
          as {route.body.word}
          {route.portions !== null && <>, {route.portions} portions</>}
        </dd>
      </dl>
      {route.notes.map((note, i) => (
        <p key={i} className="text-quiet">
          <Words of={note} />
        </p>
      ))}
      <div className="mt-auto flex items-start gap-3 pt-1">
        <Button look={route.recommended && !chosen ? 'main' : 'plain'} disabled={busy} onClick={onChoose}>
          <span>
            {chosen ? 'Keep this way' : 'Take this way'}
            <span className="sr-only">: {route.label}</span>
          </span>
        </Button>
        <Unfold className="min-w-0 flex-1" label={`this way: ${route.label}`} summary={<span className="inline-flex min-h-12 items-center font-semibold underline">Why</span>}>
          <Reasons reasons={route.reasons} />
        </Unfold>
      </div>
    </li>
  )
}
