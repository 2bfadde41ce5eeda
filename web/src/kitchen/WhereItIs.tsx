import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { answer, client, type Problem, type Schemas } from '../api/client'
import { keys } from '../api/keys'
import { tellTimeBy } from '../shared/clock'
import { Rest } from '../shared/Rest'
import { useSay, Words } from '../shared/units'
import { Button } from '../ui/Button'
import { Choice } from '../ui/Choice'
import { Sheet } from '../ui/Sheet'
import { TextField } from '../ui/TextField'

type Kitchen = Schemas['KitchenOut']

/** How high the kitchen lies, by whose clock it goes, and under whose limits. */
export function WhereItIs({ kitchen, mayChange }: { kitchen: Kitchen; mayChange: boolean }) {
  const say = useSay()
  const [choosing, setChoosing] = useState(false)
  return (
    <section aria-labelledby="where-it-is" className="mt-10">
      <h2 id="where-it-is" className="mb-3 text-xl">
        Where it is
      </h2>
      <div className="grid gap-x-8 gap-y-4 lg:grid-cols-2">
        <div className="grid content-start gap-4">
          <OneLine key={kitchen.altitude_m} label="It lies this high, m" of="altitude_m" stands={String(kitchen.altitude_m)} mayChange={mayChange} said={`Water boils at ${say(kitchen.boils_at)} here.`} />
          <OneLine
            key={kitchen.time_zone}
            label="Time zone of its clock"
            of="time_zone"
            stands={kitchen.time_zone}
            among={Intl.supportedValuesOf('timeZone')}
            mayChange={mayChange}
            said="Every time of day is told by it, and read by it: “for eight”."
          />
        </div>
        <div className="rounded-2xl border border-line bg-panel p-4">
          <h3 className="mb-1 text-base text-quiet">Cooling, keeping hot, warming again</h3>
          <ul className="grid gap-1">
            {kitchen.limits.said.map((said, index) => (
              <li key={index}>
                <Words of={said} />
              </li>
            ))}
          </ul>
          {mayChange && (
            <Button className="mt-3" onClick={() => setChoosing(true)}>
              Go by other limits
            </Button>
          )}
        </div>
      </div>
      {choosing && <LimitsSheet kitchen={kitchen} onClose={() => setChoosing(false)} />}
    </section>
  )
}

interface LineProps {
  label: string
  of: 'altitude_m' | 'time_zone'
  stands: string
  among?: string[]
  said: string
  mayChange: boolean
}

/** One thing about the place, kept as soon as it is another. */
function OneLine({ label, of, stands, among, said, mayChange }: LineProps) {
  const queries = useQueryClient()
  const [value, setValue] = useState(stands)
  const save = useMutation<Kitchen, Problem>({
    mutationFn: () => answer(client.PATCH('/api/v1/kitchen', { body: { [of]: value } })),
    onSuccess: async (kitchen) => {
      tellTimeBy(kitchen.time_zone)
      await Promise.all([queries.invalidateQueries({ queryKey: keys.kitchen }), queries.invalidateQueries({ queryKey: keys.session })])
    },
  })
  return (
    <form
      className="flex flex-wrap items-end gap-3"
      onSubmit={(event) => {
        event.preventDefault()
        save.mutate()
      }}
    >
      <TextField label={label} list={among && `${of}-known`} inputMode={among ? 'text' : 'decimal'} value={value} onChange={setValue} error={save.error?.at(of) ?? save.error?.message} className="w-64" disabled={!mayChange} autoComplete="off" />
      {among && (
        <datalist id={`${of}-known`}>
          {among.map((one) => (
            <option key={one} value={one} />
          ))}
        </datalist>
      )}
      {value !== stands && <Button type="submit">Keep it</Button>}
      <p className="min-h-12 flex-1 basis-52 content-center text-quiet">{said}</p>
    </form>
  )
}

const FIELDS = ['hold_c', 'reheat_c', 'cold_c', 'cold_min'] as const

/** A place, with its figures to be made stricter. */
function LimitsSheet({ kitchen, onClose }: { kitchen: Kitchen; onClose: () => void }) {
  const say = useSay()
  const queries = useQueryClient()
  const figuresOf = ({ hold, reheat, cold, cold_in }: Schemas['LimitFiguresOut']) => ({ hold_c: say(hold), reheat_c: say(reheat), cold_c: say(cold), cold_min: say(cold_in) })
  const [place, setPlace] = useState(kitchen.limits.place)
  const [figures, setFigures] = useState(figuresOf(kitchen.limits.figures))
  const save = useMutation<unknown, Problem>({
    mutationFn: () => answer(client.PATCH('/api/v1/kitchen', { body: { limits: { place, ...figures } } })),
    onSuccess: async () => {
      await queries.invalidateQueries({ queryKey: keys.kitchen })
      onClose()
    },
  })
  const field = (of: (typeof FIELDS)[number], label: string) => (
    <TextField label={label} value={figures[of]} onChange={(next) => setFigures({ ...figures, [of]: next })} error={save.error?.at(of)} autoComplete="off" />
  )
  return (
    <Sheet open onClose={onClose} title="Limits to go by" description="Of the place you cook at, or your own where they are stricter. They hold for batches that begin from now on. Local rules and your own food-safety plan come first: check them.">
      <form
        className="grid gap-4"
        onSubmit={(event) => {
          event.preventDefault()
          save.mutate()
        }}
      >
        <Choice
          label="Place"
          layout="stack"
          value={place}
          onChange={(next) => {
            setPlace(next)
            const found = kitchen.places.find(({ key }) => key === next)
            if (found) setFigures(figuresOf(found.figures))
          }}
          options={kitchen.places.map(({ key, label, source }) => ({ value: key, label, hint: source }))}
        />
        <div className="grid grid-cols-2 items-start gap-3">
          {field('hold_c', 'Kept hot at')}
          {field('reheat_c', 'Warmed again to')}
          {field('cold_c', 'Cold is')}
          {field('cold_min', 'Cold within')}
        </div>
        <Rest problem={save.error} beside={[...FIELDS]} />
        <Button type="submit" look="main" disabled={save.isPending}>
          Go by these
        </Button>
      </form>
    </Sheet>
  )
}
