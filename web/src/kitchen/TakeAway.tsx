import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { use, useRef, useState } from 'react'
import { answer, client, type Problem, type Schemas } from '../api/client'
import { newId } from '../api/id'
import { useSay, Units, Words } from '../shared/units'
import { Button } from '../ui/Button'
import { Sheet } from '../ui/Sheet'

type Looked = Schemas['LookedOut']

/** What the parts of a file are called; of one, and of more. */
const PARTS: Record<string, readonly [string, string]> = {
  batches: ['batch', 'batches'],
  pans: ['pan', 'pans'],
  burners: ['burner', 'burners'],
  larder: ['ingredient of your own', 'ingredients of your own'],
  devices: ['device, without its token', 'devices, without their tokens'],
  rates: ['rate that was learned', 'rates that were learned'],
  house_dishes: ['house dish', 'house dishes'],
  dish_versions: ['version of a dish', 'versions of dishes'],
  strengths: ['thickener’s strength that was learned', 'strengths of thickeners that were learned'],
  likings: ['liking that was learned', 'likings that were learned'],
}

const counted = (part: string, many: number) => `${many} ${PARTS[part]?.[many === 1 ? 0 : 1] ?? part}`

/** The file goes as it is. */
const asItIs = (text: string) => ({ body: text as unknown as Record<string, never>, bodySerializer: (body: unknown) => body as string, headers: { 'Content-Type': 'application/json' } })

/** The kitchen in a file: out, in other formats, and in again. */
export function TakeAway({ owns }: { owns: boolean }) {
  const units = use(Units)
  const input = useRef<HTMLInputElement>(null)
  const [brought, setBrought] = useState<{ text: string; of: string }>()
  return (
    <section aria-labelledby="take-away" className="mt-10">
      <h2 id="take-away" className="mb-1 text-xl">
        In a file
      </h2>
      <p className="mb-3 max-w-3xl text-quiet">Everything this kitchen recorded is yours to take elsewhere, in open formats, and to bring back.</p>
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
        {owns && <FileLink href="/api/v1/kitchen/file" said="The whole kitchen, JSON" />}
        <FileLink href={`/api/v1/kitchen/files/batches.csv?units=${units}`} said="Its batches, a table" />
        <FileLink href={`/api/v1/kitchen/files/due.ics?units=${units}`} said="What is due, a calendar" />
        {owns && (
          <>
            <Button onClick={() => input.current?.click()}>Bring in a file</Button>
            <input
              ref={input}
              type="file"
              accept=".json,application/json"
              aria-label="A file of a kitchen or of a batch"
              className="sr-only"
              tabIndex={-1}
              onChange={(event) => {
                const [file] = event.target.files ?? []
                void file?.text().then((text) => setBrought({ text, of: newId() }))
                event.target.value = ''
              }}
            />
          </>
        )}
      </div>
      {brought && <BringIn {...brought} onClose={() => setBrought(undefined)} />}
    </section>
  )
}

function FileLink({ href, said }: { href: string; said: string }) {
  return (
    <a href={href} download className="inline-flex min-h-12 items-center font-semibold underline">
      {said}
    </a>
  )
}

/** What would come of a file, before it is taken; then what came of it, which can be taken out again. */
function BringIn({ text, of, onClose }: { text: string; of: string; onClose: () => void }) {
  const queries = useQueryClient()
  const changed = () => queries.invalidateQueries({ predicate: ({ queryKey }) => queryKey[0] !== 'file' })
  const look = useQuery<Looked, Problem>({
    queryKey: ['file', of],
    queryFn: () => answer(client.POST('/api/v1/files/look', asItIs(text))),
    // What it says is of the moment at which it was asked.
    staleTime: Infinity,
    gcTime: 0,
    retry: false,
  })
  const take = useMutation<Looked, Problem>({ mutationFn: () => answer(client.POST('/api/v1/files', asItIs(text))), onSuccess: changed })
  const out = useMutation<Schemas['StaysOut'], Problem, string>({
    mutationFn: (taken) => answer(client.DELETE('/api/v1/files/{taken_id}', { params: { path: { taken_id: taken } } })),
    onSuccess: changed,
  })
  const problem = look.error ?? take.error ?? out.error
  const taken = take.data?.taken
  return (
    <Sheet open onClose={onClose} title="Bring in a file" description="What is here already stays as it is.">
      <div className="grid gap-4">
        {(look.isPending || take.isPending) && <p role="status">{take.isPending ? 'It is being taken in.' : 'It is being read.'}</p>}
        {look.data && <What looked={take.data ?? look.data} done={taken != null} />}
        {problem && (
          <p role="alert" className="font-medium text-heat">
            {problem.rest() ?? problem.message}
          </p>
        )}
        {out.data && <TakenOut stays={out.data.stays} />}
        <div className="flex flex-wrap gap-2">
          {look.data?.anything && !take.data && (
            <Button look="main" disabled={take.isPending} onClick={() => take.mutate()}>
              Take it in
            </Button>
          )}
          {taken && !out.data && (
            <Button disabled={out.isPending} onClick={() => out.mutate(taken)}>
              Take it out again
            </Button>
          )}
          {!take.data && <Button onClick={onClose}>Leave it</Button>}
        </div>
      </div>
    </Sheet>
  )
}

function What({ looked, done }: { looked: Looked; done: boolean }) {
  const fresh = looked.parts.filter(({ new: many }) => many > 0)
  const there = looked.parts.filter(({ there: many }) => many > 0)
  return (
    <>
      {fresh.length > 0 ? (
        <div>
          <h3 className="text-base text-quiet">{done ? 'Taken in' : 'New'}</h3>
          <p className="text-lg font-semibold">{fresh.map(({ part, new: many }) => counted(part, many)).join(', ')}</p>
          {looked.batches.length > 0 && <p className="break-words">{looked.batches.join(', ')}</p>}
        </div>
      ) : (
        <p className="text-lg font-semibold">Nothing in it is new.</p>
      )}
      {there.length > 0 && <p className="text-quiet">Here already: {there.map(({ part, there: many }) => counted(part, many)).join(', ')}</p>}
      {looked.refused.length > 0 && (
        <div>
          <h3 className="text-base text-heat">Not taken</h3>
          <ul className="grid gap-1">
            {looked.refused.map(({ name, why }, i) => (
              <li key={i} className="break-words">
                <b>{name}</b>: <Words of={why} />
              </li>
            ))}
          </ul>
        </div>
      )}
    </>
  )
}

function TakenOut({ stays }: { stays: Schemas['StaysOut']['stays'] }) {
  const say = useSay()
  return <p role="status">{stays.length > 0 ? stays.map((one) => say(one)).join(' ') : 'It is out again, and nothing of it is left.'}</p>
}
