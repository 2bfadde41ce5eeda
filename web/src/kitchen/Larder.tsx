import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { answer, client, type Problem, type Schemas } from '../api/client'
import { keys } from '../api/keys'
import { useIngredients, useLarder } from '../api/kitchens'
import { useSettled } from '../shared/useSettled'
import { Button } from '../ui/Button'
import { Choice } from '../ui/Choice'
import { Sheet } from '../ui/Sheet'
import { TextField } from '../ui/TextField'
import { OwnList } from './OwnList'
import { useExample } from '../shared/units'

type Own = Schemas['OwnOut']

/** Ingredients of the kitchen's own: the house stock, a brine, a wine that is not as wines are. */
export function Larder({ mayChange }: { mayChange: boolean }) {
  const larder = useLarder()
  const queries = useQueryClient()
  const [editing, setEditing] = useState<Own | 'new' | null>(null)
  const remove = useMutation<unknown, Problem, string>({
    mutationFn: (id) => answer(client.DELETE('/api/v1/larder/{own_id}', { params: { path: { own_id: id } } })),
    onSuccess: () => forget(),
  })
  const forget = async () => {
    await queries.invalidateQueries({ queryKey: keys.larder })
    queries.removeQueries({ queryKey: ['ingredients'] })
    queries.removeQueries({ queryKey: ['line'] })
  }
  return (
    <section aria-labelledby="larder">
      <OwnList
        id="larder"
        title="Larder"
        about="What is yours alone: the house stock with the salt of its label, or a wine of another strength."
        none="Nothing of your own yet. The usual things are built in; add what they do not fit."
        add="Add an ingredient"
        mayChange={mayChange}
        things={larder.data}
        nameOf={(own) => own.spec.name}
        idOf={(own) => own.id}
        onAdd={() => setEditing('new')}
        onChange={setEditing}
        onPutAway={(own) => remove.mutate(own.id)}
      >
        {(own) => (
          <p className="text-quiet">
            like {own.like}
            {own.spec.instead ? ', in its place' : ''}
            <br />
            <span className="text-salt">{own.ingredient.salt.toFixed(2)} % salt</span>
            {own.ingredient.abv > 0 && ` · ${own.ingredient.abv} % vol`}
            {own.ingredient.gelatin > 0 && ` · ${own.ingredient.gelatin} % gelatin`}
          </p>
        )}
      </OwnList>
      {editing && (
        <OwnSheet
          own={editing === 'new' ? null : editing}
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
  own: Own | null
  onClose: () => void
  onKept: () => Promise<void>
}

const text = (value: number | string | null | undefined, unit: string) => (value === null || value === undefined ? '' : `${value}${unit}`)

function OwnSheet({ own, onClose, onKept }: SheetProps) {
  const eg = useExample()
  const spec = own?.spec
  const [name, setName] = useState(spec?.name ?? '')
  const [sought, setSought] = useState('')
  const [like, setLike] = useState<{ key: string; name: string } | null>(own ? { key: own.spec.like, name: own.like } : null)
  const [instead, setInstead] = useState(spec?.instead ?? false)
  const [by, setBy] = useState<'sodium' | 'salt'>(spec?.label?.salt_g ? 'salt' : 'sodium')
  const [amount, setAmount] = useState(spec?.label ? text(spec.label.sodium_g ?? spec.label.salt_g, ' g') : '')
  const [serving, setServing] = useState(spec?.label?.serving ?? eg('240 ml', '1 cup'))
  const [abv, setAbv] = useState(text(spec?.abv, ' %'))
  const [gelatin, setGelatin] = useState(text(spec?.gelatin, ' g'))
  const [sugar, setSugar] = useState(text(spec?.sugar, ' g'))
  const [fat, setFat] = useState(text(spec?.fat, ' g'))
  const found = useIngredients(useSettled(sought, 160))
  const body: Schemas['OwnIngredient'] = {
    name,
    like: like?.key ?? '',
    instead,
    label: amount.trim() ? { ...(by === 'sodium' ? { sodium_g: amount } : { salt_g: amount }), serving } : null,
    abv: abv.trim() || null,
    gelatin: gelatin.trim() || null,
    sugar: sugar.trim() || null,
    fat: fat.trim() || null,
  }
  const save = useMutation<unknown, Problem>({
    mutationFn: () =>
      own
        ? answer(client.PUT('/api/v1/larder/{own_id}', { params: { path: { own_id: own.id } }, body }))
        : answer(client.POST('/api/v1/larder', { body })),
    onSuccess: onKept,
  })
  const wrong = save.error
  return (
    <Sheet open onClose={onClose} title={own ? `Change ${own.spec.name}` : 'An ingredient of your own'} description="Say what it is like, and what is different about it. Batches keep what went into them.">
      <form
        className="grid gap-4"
        onSubmit={(event) => {
          event.preventDefault()
          save.mutate()
        }}
      >
        <TextField label="What you call it" placeholder="house brown stock" value={name} onChange={setName} error={wrong?.at('name')} required maxLength={60} autoComplete="off" />
        <div className="grid gap-2">
          <TextField
            label={like ? `Like ${like.name}` : 'What it is like'}
            placeholder="beef stock"
            value={sought}
            onChange={setSought}
            error={wrong?.at('like')}
            autoComplete="off"
          />
          {sought.trim() && (
            <Choice
              label="Found"
              hideLabel
              layout="stack"
              value={like?.key}
              onChange={(key) => {
                setLike({ key, name: found.data?.find((item) => item.key === key)?.name ?? key })
                setSought('')
              }}
              options={(found.data ?? []).filter((item) => !item.own).slice(0, 5).map((item) => ({ value: item.key, label: item.name }))}
            />
          )}
        </div>
        <Choice
          label="Its label gives"
          value={by}
          onChange={setBy}
          options={[
            { value: 'sodium', label: 'sodium' },
            { value: 'salt', label: 'salt' },
          ]}
        />
        <div className="grid grid-cols-2 gap-3">
          <TextField label={by === 'sodium' ? 'Sodium in a serving' : 'Salt in a serving'} placeholder={by === 'sodium' ? '480 mg' : '1.2 g'} value={amount} onChange={setAmount} error={wrong?.at('sodium_g', 'salt_g', 'sodium')} autoComplete="off" />
          <TextField label="A serving is" placeholder={eg('240 ml', '1 cup')} value={serving} onChange={setServing} error={wrong?.at('serving')} autoComplete="off" />
          <TextField label="Strength, if any" placeholder="12.5 %" value={abv} onChange={setAbv} error={wrong?.at('abv')} autoComplete="off" />
          <TextField label="Gelatin in 100 g" placeholder="1.5 g" hint="Empty: as that." value={gelatin} onChange={setGelatin} error={wrong?.at('gelatin')} autoComplete="off" />
          <TextField label="Sugar in 100 g" placeholder="2 g" hint="Empty: as that." value={sugar} onChange={setSugar} error={wrong?.at('sugar')} autoComplete="off" />
          <TextField label="Fat in 100 g" placeholder="1 g" hint="Empty: as that." value={fat} onChange={setFat} error={wrong?.at('fat')} autoComplete="off" />
        </div>
        <Choice
          label="In lists, it is"
          value={instead ? 'instead' : 'beside'}
          onChange={(next) => setInstead(next === 'instead')}
          options={[
            { value: 'beside', label: 'found by its own name' },
            { value: 'instead', label: like ? `always meant by “${like.name}”` : 'always meant by the other’s name' },
          ]}
        />
        {wrong && <p role="alert" className="font-medium text-heat">{wrong.message}</p>}
        <Button type="submit" look="main" disabled={!name.trim() || !like || save.isPending}>
          Keep it
        </Button>
      </form>
    </Sheet>
  )
}
