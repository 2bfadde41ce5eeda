import { Suspense, useState } from 'react'
import { answer, client, type Schemas } from '../api/client'
import { useSessionChange } from '../api/session'
import { Button } from '../ui/Button'
import { TextField } from '../ui/TextField'
import { Rest } from '../shared/Rest'
import { part } from '../ui/part'
import { withItsZone, ZONE_HERE } from './zone'

const RecoverForm = part(() => import('./RecoverForm'))

interface Props {
  /** Whether somebody new gives a name, to a new kitchen or to the one they began. */
  joining: boolean
  act: string
  /** What was begun here comes along. */
  bring?: boolean
  look?: 'plain' | 'main'
  onJoining: (joining: boolean) => void
  onDone?: () => void
}

/** A name and its password; and what the kitchen is called, where it is new. */
export function NameForm({ joining, act, bring = false, look = 'main', onJoining, onDone }: Props) {
  const [form, setForm] = useState<Schemas['SignUp']>({ name: '', password: '', kitchen: '', time_zone: ZONE_HERE, bring: false })
  const signIn = useSessionChange((body: Schemas['SignIn']) => answer(client.POST('/api/v1/session', { body })).then(withItsZone))
  const signUp = useSessionChange((body: Schemas['SignUp']) => answer(client.POST('/api/v1/accounts', { body })))
  const active = joining ? signUp : signIn
  const done = onDone ? { onSuccess: onDone } : {}
  const [forgotten, setForgotten] = useState(false)
  if (forgotten && !joining)
    return (
      <Suspense>
        <RecoverForm name={form.name} onBack={() => setForgotten(false)} onDone={onDone} />
      </Suspense>
    )
  return (
    <form
      className="grid gap-3"
      onSubmit={(event) => {
        event.preventDefault()
        if (joining) signUp.mutate(form, done)
        else signIn.mutate({ name: form.name, password: form.password, bring }, done)
      }}
    >
      <TextField label="Name" autoComplete="username" required value={form.name} onChange={(name) => setForm({ ...form, name })} error={active.error?.at('name')} />
      <TextField
        label="Password"
        type="password"
        autoComplete={joining ? 'new-password' : 'current-password'}
        required
        value={form.password}
        onChange={(password) => setForm({ ...form, password })}
        error={active.error?.at('password')}
      />
      {joining && (
        <TextField label="Kitchen" placeholder="What you call your kitchen" required value={form.kitchen} onChange={(kitchen) => setForm({ ...form, kitchen })} error={active.error?.at('kitchen')} />
      )}
      <Rest problem={active.error} beside={['name', 'password', ...(joining ? ['kitchen'] : [])]} />
      <div className="flex flex-wrap items-center gap-3">
        <Button type="submit" look={look} disabled={active.isPending}>
          {act}
        </Button>
        <button type="button" className="min-h-12 px-2 font-semibold underline" onClick={() => onJoining(!joining)}>
          {joining ? 'I have a name here' : 'Sign up'}
        </button>
        {!joining && (
          <button type="button" className="min-h-12 px-2 font-semibold underline" onClick={() => setForgotten(true)}>
            I forgot my password
          </button>
        )}
      </div>
    </form>
  )
}
