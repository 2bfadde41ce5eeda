import type { Batch, Payload } from '../api/types'
import type { View } from '../stages/useBench'
import { EveningStrip } from './EveningStrip'
import { LastTime } from './LastTime'

interface Props {
  batch: Batch
  view: View
  now: number
  onRecord: (payload: Payload) => void
}

/** What stands above whatever stage is open: the evening until dinner, and what was noted last time. */
export default function Above({ batch, view, now, onRecord }: Props) {
  return (
    <>
      {batch.ready?.by && view !== 'plan' && !batch.finished && (
        <div className="mb-2 hidden md:[@media(min-height:700px)]:block">
          <EveningStrip ready={batch.ready} now={now} />
        </div>
      )}
      <LastTime batch={batch} stage={view === 'plan' ? 'strain' : view} onRecord={onRecord} />
    </>
  )
}
