import { useState } from 'react'
import { answer, client, type Schemas } from '../api/client'
import { useSessionChange } from '../api/session'
import type { Session } from '../api/types'
import { STAGES } from '../stages/registry'
import { Ribbon } from '../figures/Ribbon'
import { Button } from '../ui/Button'
import { TextField } from '../ui/TextField'
import { Rest } from '../shared/Rest'

const example = [
  { stage: 'strain', from_ml: 1580, to_ml: 1580, from_fat_ml: 105, to_fat_ml: 105, from_tone: 0.25, to_tone: 0.25, volume: '', salt: '' },
  { stage: 'skim', from_ml: 1580, to_ml: 1475, from_fat_ml: 105, from_tone: 0.25, to_tone: 0.3, volume: '', salt: '', fat: 'fat' },
  { stage: 'reduce', from_ml: 1475, to_ml: 860, from_tone: 0.3, to_tone: 0.6, volume: '', salt: '', vapour: 'steam' },
  { stage: 'thicken', from_ml: 860, to_ml: 910, from_tone: 0.6, to_tone: 0.75, volume: '', salt: '', added: 'roux' },
  { stage: 'season', from_ml: 910, to_ml: 910, from_tone: 0.75, to_tone: 0.78, volume: '', salt: '' },
  { stage: 'serve', from_ml: 910, to_ml: 910, from_tone: 0.78, to_tone: 0.8, volume: '', salt: '' },
].map((s) => ({ planned: false, from_fat_ml: 0, to_fat_ml: 0, fat: null, vapour: null, added: null, ...s }))

/** The time zone of this device. */
const ZONE_HERE = Intl.DateTimeFormat().resolvedOptions().timeZone

/** A kitchen of which nobody said the time zone goes by that of the device on which somebody steps into it. */
async function withItsZone(session: Session): Promise<Session> {
  if (session.role === 'guest' || session.time_zone !== '') return session
  const told = await answer(client.PATCH('/api/v1/kitchen', { body: { time_zone: ZONE_HERE } })).catch(() => null)
  return told === null ? session : { ...session, time_zone: told.time_zone }
}

/** The way in: one tap to look around, or a kitchen of one's own. */
export function Welcome({ demoOffered }: { demoOffered: boolean }) {
  const [joining, setJoining] = useState(false)
  const [form, setForm] = useState<Schemas['SignUp']>({ name: '', password: '', kitchen: '', time_zone: ZONE_HERE })
  const signIn = useSessionChange((body: Schemas['SignIn']) => answer(client.POST('/api/v1/session', { body })).then(withItsZone))
  const signUp = useSessionChange((body: Schemas['SignUp']) => answer(client.POST('/api/v1/accounts', { body })))
  const demo = useSessionChange((_: undefined) => answer(client.POST('/api/v1/session/demo')).then(withItsZone))
  const active = joining ? signUp : signIn
  const submit = () => (joining ? signUp.mutate(form) : signIn.mutate({ name: form.name, password: form.password }))

  return (
    <main className="mx-auto flex min-h-dvh max-w-5xl flex-col justify-center gap-8 px-5 py-8">
      <div>
        <h1 className="text-4xl font-extrabold tracking-tight md:text-5xl">spissus</h1>
        <p className="mt-2 max-w-2xl text-xl text-quiet">
          From the strained liquid of a braise to a finished sauce: how far to boil it down, how much to thicken it, and how
          salty it will be by then.
        </p>
      </div>
      <div aria-hidden="true" className="pointer-events-none" inert>
        <Ribbon stages={STAGES} stretches={example} next={null} open={null} onOpen={() => undefined} clock="" ahead="" />
      </div>
      <div className="grid gap-8 md:grid-cols-[1fr_1.1fr]">
        {demoOffered && (
          <section aria-label="Look around">
            <h2 className="mb-2 text-xl">Look around</h2>
            <p className="mb-4 text-quiet">A made-up guest-house kitchen, with five sauces on the way.</p>
            <Button look="main" className="w-full sm:w-auto" onClick={() => demo.mutate(undefined)}>
              Step into the demo kitchen
            </Button>
            {demo.isError && <p role="alert" className="mt-2 text-heat">{demo.error.message}</p>}
          </section>
        )}
        <section aria-label={joining ? 'Sign up' : 'Sign in'}>
          <h2 className="mb-2 text-xl">{joining ? 'Open a kitchen of your own' : 'Sign in'}</h2>
          <form
            className="grid gap-3"
            onSubmit={(event) => {
              event.preventDefault()
              submit()
            }}
          >
            <TextField
              label="Name"
              autoComplete="username"
              required
              value={form.name}
              onChange={(name) => setForm({ ...form, name })}
              error={active.error?.at('name')}
            />
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
              <TextField
                label="Kitchen"
                placeholder="What you call your kitchen"
                required
                value={form.kitchen}
                onChange={(kitchen) => setForm({ ...form, kitchen })}
                error={active.error?.at('kitchen')}
              />
            )}
            <Rest problem={active.error} beside={['name', 'password', ...(joining ? ['kitchen'] : [])]} />
            <div className="flex flex-wrap items-center gap-3">
              <Button type="submit" look={demoOffered ? 'plain' : 'main'} disabled={active.isPending}>
                {joining ? 'Open the kitchen' : 'Sign in'}
              </Button>
              <button type="button" className="min-h-12 px-2 font-semibold underline" onClick={() => setJoining(!joining)}>
                {joining ? 'I have a name here' : 'Sign up'}
              </button>
            </div>
          </form>
        </section>
      </div>
    </main>
  )
}
