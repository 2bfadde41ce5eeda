import { answer, client } from '../api/client'
import type { Session } from '../api/types'

/** The time zone of this device. */
export const ZONE_HERE = Intl.DateTimeFormat().resolvedOptions().timeZone

/** A kitchen of which nobody said the time zone goes by that of the device on which somebody steps into it. */
export async function withItsZone(session: Session): Promise<Session> {
  if (session.role === 'guest' || session.role === 'station' || session.time_zone !== '') return session
  const told = await answer(client.PATCH('/api/v1/kitchen', { body: { time_zone: ZONE_HERE } })).catch(() => null)
  return told === null ? session : { ...session, time_zone: told.time_zone }
}
