import type { Jar } from '../api/shelf'
import { clock, day } from './clock'
import { useNow } from './useNow'
import { useSay } from './units'

export const PLACES = { fridge: 'in the fridge', freezer: 'in the freezer' } as const

/** Something that is kept, in two lines: how much of what, where, and by when. */
export function JarLine({ jar }: { jar: Jar }) {
  const say = useSay()
  const now = useNow()
  return (
    <>
      <span className="block leading-tight font-bold break-words">
        {say(jar.volume)} {jar.name}
        {jar.containers > 1 && <span className="font-normal text-quiet"> in {jar.containers}</span>}
      </span>
      <span className="block leading-snug text-quiet">
        {jar.taste && <span className="font-semibold text-salt">{jar.salt_percent.toFixed(2)} %</span>} {PLACES[jar.place]}
      </span>
      {jar.cold_by && (
        <span className={`block leading-snug ${Date.parse(jar.cold_by) < now ? 'font-semibold text-heat' : ''}`}>
          {Date.parse(jar.cold_by) < now ? 'was to be cold by' : 'must be cold by'} {clock(jar.cold_by)}
        </span>
      )}
      <span className={`block leading-snug ${jar.past ? 'font-semibold text-heat' : ''}`}>
        {jar.past ? 'past its date, ' : 'use by '}
        {day(jar.use_by)}
      </span>
    </>
  )
}
