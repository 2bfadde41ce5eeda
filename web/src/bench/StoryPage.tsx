import { useQuery } from '@tanstack/react-query'
import { Link } from 'wouter'
import { answer, client, type Problem, type Schemas } from '../api/client'
import type { Batch } from '../api/types'
import { StoryRibbon } from '../figures/StoryRibbon'
import { clock, day } from '../shared/clock'
import { FileLinks } from '../shared/FileLinks'
import { useSay, Words } from '../shared/units'
import { beside, PrintBar } from './PrintBar'

type Story = Schemas['StoryOut']

const CALLED: Record<Story['figures'][number]['what'], string> = { volume: 'made', body: 'body', salt: 'salt', strength: 'strength', time: 'on the table' }

const timed = (points: Story['happened']) => points.map(({ at, ...rest }) => ({ at: Date.parse(at), ...rest }))

/** What happened over what was foreseen, why they differ, and everything that was done, to cook from again. */
export function StoryPage({ batch }: { batch: Batch }) {
  const { data, isPending } = useQuery<Story | null, Problem>({
    queryKey: ['story', batch.id, batch.last_seq],
    queryFn: ({ signal }) => answer(client.GET('/api/v1/batches/{batch_id}/story', { params: { path: { batch_id: batch.id } }, signal })),
    retry: false,
  })
  return (
    <main className="mx-auto max-w-[78rem] p-4 md:p-7 print:max-w-none print:p-0">
      <PrintBar back={`/batches/${batch.id}`}>
        <Link href={`/start?again=${batch.id}`} className={beside}>
          Cook it again
        </Link>
      </PrintBar>
      <header className="mb-4">
        <h1 className="text-2xl leading-tight break-words">{batch.name}</h1>
        <p className="text-quiet">
          {day(batch.created_at)} · {batch.pan.name} · {batch.burner}
        </p>
      </header>
      {data ? <Told story={data} /> : !isPending && <p className="text-lg">There is nothing to hold it against: no way was taken, or it is not finished.</p>}
      {batch.account && (
        <p aria-label="In short" className="mt-5 text-xl">
          <Words of={batch.account} />
        </p>
      )}
      <section aria-label="What was done" className="mt-6">
        <h2 className="mb-1 text-lg">What was done</h2>
        <ol className="columns-1 gap-10 lg:columns-2 print:columns-2">
          {batch.log
            .filter(({ struck }) => !struck)
            .toSorted((a, b) => Date.parse(a.at) - Date.parse(b.at))
            .map((entry) => (
              <li key={entry.id} className="flex break-inside-avoid gap-4 border-b border-line py-1.5">
                <span className="w-14 shrink-0 text-quiet">{clock(entry.at)}</span>
                <span className="min-w-0 break-words">
                  <Words of={entry.text} />
                </span>
              </li>
            ))}
        </ol>
      </section>
      <div className="mt-4 print:hidden">
        <FileLinks id={batch.id} />
      </div>
    </main>
  )
}

function Told({ story }: { story: Story }) {
  const say = useSay()
  const leaders = story.because.map(({ at, ml, what, did }) => ({ at: Date.parse(at), ml, what: say(what), did: say(did) }))
  return (
    <>
      <StoryRibbon happened={timed(story.happened)} foreseen={timed(story.foreseen)} leaders={leaders} clock={clock} />
      <dl className="mt-5 grid grid-cols-2 gap-x-6 gap-y-4 sm:grid-cols-3 lg:grid-cols-5">
        {story.figures.map(({ what, happened, foreseen, same }) => (
          <div key={what}>
            <dt className="text-quiet">{CALLED[what]}</dt>
            <dd className={`text-3xl leading-tight font-bold ${same ? '' : 'text-heat'}`}>
              <Words of={happened} />
            </dd>
            <dd className="text-quiet">
              {same ? 'as foreseen' : 'foreseen'} {!same && <Words of={foreseen} />}
            </dd>
          </div>
        ))}
      </dl>
    </>
  )
}
