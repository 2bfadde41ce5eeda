import { type QueryClient } from '@tanstack/react-query'
import { whoIsThere } from './session'
import { theLists } from './lists'
import { theBatches, theBatch } from './batches'

/** What the page at this address shows is asked for at once, while the page is still being read. */
export function askAhead(queries: QueryClient, address: string) {
  const [, place, batchId] = address.split('/')
  void queries.prefetchQuery(whoIsThere)
  void queries.prefetchQuery(theLists)
  void queries.prefetchInfiniteQuery(theBatches)
  if (place === 'batches' && batchId) void queries.prefetchQuery(theBatch(batchId))
}
