import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState, type ReactNode } from 'react'
import { answer, client, type Problem, type Schemas } from '../api/client'
import { useSession, useSessionChange } from '../api/session'
import { clock, day } from '../shared/clock'
import { Rest } from '../shared/Rest'
import { Button } from '../ui/Button'
import { Sheet } from '../ui/Sheet'
import { TextField } from '../ui/TextField'
import { Unfold } from '../ui/Unfold'

/** Oneself: the name, the password, the browsers that are signed in, and the end of it. */
export default function OneselfSheet({ onClose }: { onClose: () => void }) {
  const session = useSession()
  return (
    <Sheet open onClose={onClose} title={session.data?.name ?? ''} description="Your name, your password, and where you are signed in.">
      <div className="grid gap-2">
        <Part name="Change your password">
          <Password onClose={onClose} />
        </Part>
        <Part name="Change your name">
          <Name onClose={onClose} />
        </Part>
        <Part name="Where you are signed in">
          <Browsers />
        </Part>
        <Part name="Delete everything of yours">
          <End onClose={onClose} />
        </Part>
      </div>
    </Sheet>
  )
}

function Part({ name, children }: { name: string; children: ReactNode }) {
  return (
    <Unfold label="" summary={<span className="inline-flex min-h-12 items-center text-lg font-semibold underline">{name}</span>}>
      <div className="py-2 text-ink">{children}</div>
    </Unfold>
  )
}

function Password({ onClose }: { onClose: () => void }) {
  const [form, setForm] = useState<Schemas['NewPassword']>({ old: '', new: '' })
  const change = useSessionChange((body: Schemas['NewPassword']) => answer(client.PUT('/api/v1/session/password', { body })))
  return (
    <form
      className="grid gap-4"
      onSubmit={(event) => {
        event.preventDefault()
        change.mutate(form, { onSuccess: onClose })
      }}
    >
      <p className="text-quiet">Everywhere else you are signed in, you will be signed out.</p>
      <TextField label="Password now" type="password" autoComplete="current-password" required value={form.old} onChange={(old) => setForm({ ...form, old })} error={change.error?.at('old')} />
      <TextField label="New password" type="password" autoComplete="new-password" required hint="Ten characters or more" value={form.new} onChange={(next) => setForm({ ...form, new: next })} error={change.error?.at('new')} />
      <Rest problem={change.error} beside={['old', 'new']} />
      <Button type="submit" look="main" disabled={change.isPending || !form.old || !form.new}>
        Change it
      </Button>
    </form>
  )
}

function Name({ onClose }: { onClose: () => void }) {
  const [form, setForm] = useState<Schemas['NameIn']>({ name: '', password: '' })
  const change = useSessionChange((body: Schemas['NameIn']) => answer(client.PUT('/api/v1/me/name', { body })))
  return (
    <form
      className="grid gap-4"
      onSubmit={(event) => {
        event.preventDefault()
        change.mutate(form, { onSuccess: onClose })
      }}
    >
      <TextField label="New name" autoComplete="username" required value={form.name} onChange={(name) => setForm({ ...form, name })} error={change.error?.at('name')} />
      <TextField label="Your password" type="password" autoComplete="current-password" required value={form.password} onChange={(password) => setForm({ ...form, password })} error={change.error?.at('password')} />
      <Rest problem={change.error} beside={['name', 'password']} />
      <Button type="submit" look="main" disabled={change.isPending || !form.name || !form.password}>
        Change the name
      </Button>
    </form>
  )
}

function Browsers() {
  const queries = useQueryClient()
  const key = ['browsers']
  const browsers = useQuery<Schemas['BrowserOut'][], Problem>({ queryKey: key, queryFn: ({ signal }) => answer(client.GET('/api/v1/me/browsers', { signal })) })
  const end = useMutation<unknown, Problem, string>({
    mutationFn: (mark) => answer(client.DELETE('/api/v1/me/browsers/{mark}', { params: { path: { mark } } })),
    onSuccess: () => queries.invalidateQueries({ queryKey: key }),
  })
  return (
    <ul className="divide-y divide-line">
      {browsers.data?.map((one) => (
        <li key={one.id} className="flex flex-wrap items-center gap-x-3 py-1">
          <span className="min-w-0 flex-1 break-words">
            {one.agent || 'A browser'}
            <span className="block text-sm text-quiet">
              since {day(one.since)}, {clock(one.since)}
              {one.here && ', this one'}
            </span>
          </span>
          {!one.here && <Button onClick={() => end.mutate(one.id)}>Sign out</Button>}
        </li>
      ))}
    </ul>
  )
}

function End({ onClose }: { onClose: () => void }) {
  const [password, setPassword] = useState('')
  const end = useSessionChange((body: Schemas['EndIn']) => answer(client.POST('/api/v1/me/end', { body })))
  return (
    <form
      className="grid gap-4"
      onSubmit={(event) => {
        event.preventDefault()
        end.mutate({ password }, { onSuccess: onClose })
      }}
    >
      <p className="text-quiet">You, and every kitchen in which nobody else works, with all its batches, are deleted for good. What you recorded in the kitchens of others stays there, without your name.</p>
      <p>
        <a href="/api/v1/kitchen/file" download className="inline-flex min-h-12 items-center font-semibold underline">
          Take the kitchen away in a file first
        </a>
      </p>
      <TextField label="Your password" type="password" autoComplete="current-password" required value={password} onChange={setPassword} error={end.error?.at('password')} />
      <Rest problem={end.error} beside={['password']} />
      <Button type="submit" disabled={end.isPending || !password}>
        Delete it for good
      </Button>
    </form>
  )
}
