import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { answer, client, type Problem, type Schemas } from '../api/client'
import { keys } from '../api/keys'
import { useMixtureRead, useMixtures, type Mixture } from '../api/mixtures'
import { useExample, Words } from '../shared/units'
import { useSettled } from '../shared/useSettled'
import { Button } from '../ui/Button'
import { Choice } from '../ui/Choice'
import { Sheet } from '../ui/Sheet'
import { TextArea } from '../ui/TextArea'
import { TextField } from '../ui/TextField'
import { OwnList } from './OwnList'

/** Thickeners that the kitchen mixes itself: a roux that stands ready, two starches in one tin. */
export function Mixtures({ mayChange }: { mayChange: boolean }) {
  const found = useMixtures()
  const queries = useQueryClient()
  const [editing, setEditing] = useState<Mixture | 'new' | null>(null)
  const forget = () => queries.invalidateQueries({ queryKey: keys.mixtures })
  const remove = useMutation<unknown, Problem, string>({
    mutationFn: (id) => answer(client.DELETE('/api/v1/mixtures/{mixture_id}', { params: { path: { mixture_id: id } } })),
    onSuccess: forget,
  })
  return (
    <section aria-labelledby="mixtures">
      <OwnList
        id="mixtures"
        title="Thickeners of your own"
        about="A roux that stands ready in the fridge, or starches in one tin. They are offered on every plan, under “Another way to thicken”."
        none="None yet. Flour and the usual starches are built in."
        add="Add a thickener"
        mayChange={mayChange}
        things={found.data?.mixtures}
        nameOf={(one) => one.name}
        idOf={(one) => one.id}
        onAdd={() => setEditing('new')}
        onChange={setEditing}
        onPutAway={(one) => remove.mutate(one.id)}
      >
        {(one) => (
          <>
            <p className="text-quiet">{one.goes_in_said}</p>
            <Understood of={one.understood} />
          </>
        )}
      </OwnList>
      {editing && found.data && (
        <MixtureSheet
          mixture={editing === 'new' ? null : editing}
          waysIn={found.data.goes_in}
          onClose={() => setEditing(null)}
          onKept={async () => {
            await forget()
            setEditing(null)
          }}
        />
      )}
    </section>
  )
}

interface SheetProps {
  mixture: Mixture | null
  waysIn: readonly Schemas['HandlingOut'][]
  onClose: () => void
  onKept: () => Promise<void>
}

/** What is in it, read while it is written. */
function MixtureSheet({ mixture, waysIn, onClose, onKept }: SheetProps) {
  const roux = useExample()('500 g flour\n500 g butter', '1 lb flour\n1 lb butter')
  const [name, setName] = useState(mixture?.name ?? '')
  const [text, setText] = useState(mixture?.text ?? '')
  const [goesIn, setGoesIn] = useState(mixture?.goes_in ?? waysIn[0]?.key ?? '')
  const body = { name, text, goes_in: goesIn } as Schemas['MixtureIn']
  const whole = name.trim() && text.trim() ? body : null
  const read = useMixtureRead(useSettled(whole, 300, JSON.stringify(whole)))
  const save = useMutation<unknown, Problem>({
    mutationFn: () =>
      mixture
        ? answer(client.PUT('/api/v1/mixtures/{mixture_id}', { params: { path: { mixture_id: mixture.id } }, body }))
        : answer(client.POST('/api/v1/mixtures', { body })),
    onSuccess: onKept,
  })
  const wrong = save.error
  return (
    <Sheet open onClose={onClose} title={mixture ? `Change ${mixture.name}` : 'A thickener of your own'} description="Say what is in it. Batches keep what went into them.">
      <form
        className="grid gap-4"
        onSubmit={(event) => {
          event.preventDefault()
          save.mutate()
        }}
      >
        <TextField label="What you call it" placeholder="house roux" value={name} onChange={setName} error={wrong?.at('name')} required maxLength={60} autoComplete="off" />
        <TextArea label="What is in it, a line each" placeholder={roux} rows={4} value={text} onChange={setText} error={wrong?.at('text')} />
        <Choice label="It goes in" layout="stack" value={goesIn} onChange={setGoesIn} options={waysIn.map(({ key, label }) => ({ value: key, label }))} />
        {whole && read.data && !read.isError && (
          <div role="status">
            <Understood of={read.data} />
          </div>
        )}
        {wrong && !wrong.at('name') && !wrong.at('text') && <p role="alert" className="font-medium text-heat">{wrong.message}</p>}
        <Button type="submit" look="main" disabled={!whole || save.isPending}>
          Keep it
        </Button>
      </form>
    </Sheet>
  )
}

/** Its list as it was understood, and what comes of it. */
function Understood({ of }: { of: Schemas['MixtureRead'] }) {
  return (
    <>
      <ul className="text-base leading-snug text-quiet">
        {of.read.map((line, i) => (
          <li key={i}>
            <Words of={line} />
          </li>
        ))}
      </ul>
      <p className="mt-1 leading-snug">
        {of.said.map((said, i) => (
          <span key={i}>
            <Words of={said} />{' '}
          </span>
        ))}
        {of.brings.length > 0 && <span className="font-semibold">Brings {of.brings.join(', ')}.</span>}
      </p>
    </>
  )
}
