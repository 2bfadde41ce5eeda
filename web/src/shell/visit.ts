import { navigate } from 'wouter/use-browser-location'
import { theBatches } from '../api/batches'
import { answer, client } from '../api/client'
import { belongTo, queries } from '../api/kept'
import { keys } from '../api/keys'
import { theKitchen } from '../api/kitchens'
import { theLists } from '../api/lists'
import { fresh, saveDraft } from '../intake/draft'
import { StartPart } from './StartPart'

/** A pause in typing, ms: a page that changes between two letters may lose one. */
const PAUSE_MS = 350

/** Until nothing more has been typed for a moment. */
async function pause(said: () => string): Promise<void> {
  for (let before; before !== said(); ) {
    before = said()
    await new Promise((over) => setTimeout(over, PAUSE_MS))
  }
}

const ZONE_HERE = Intl.DateTimeFormat().resolvedOptions().timeZone

/** Somebody without a name, in a kitchen that lasts as long as this browser is signed in. */
export const newcomer = () => answer(client.POST('/api/v1/session/visit', { body: { time_zone: ZONE_HERE } }))

/** Somebody begins at once. Everything that the next page needs is here before this one goes, so that what is typed
 * meanwhile loses no letter: `said` is asked at the last moment. */
export async function visit(said: () => string): Promise<void> {
  const session = await newcomer()
  belongTo(session)
  await Promise.all([StartPart.ahead(), queries.fetchQuery(theKitchen), queries.fetchInfiniteQuery(theBatches), queries.fetchQuery(theLists)])
  await pause(said)
  saveDraft(session.person, { ...fresh, said: said() })
  navigate('/start')
  queries.setQueryData(keys.session, session)
}
