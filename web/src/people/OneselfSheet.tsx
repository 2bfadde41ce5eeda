import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState, type ReactNode } from 'react'
import { answer, client, type Problem, type Schemas } from '../api/client'
import { useSession, useSessionChange } from '../api/session'
import type { Session } from '../api/types'
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
          <Asked fields={OTHER_PASSWORD} act="Change it" onDone={onClose} call={({ old = '', new: next = '' }) => answer(client.PUT('/api/v1/session/password', { body: { old, new: next } }))}>
            <p className="text-quiet">Everywhere else you are signed in, you will be signed out.</p>
          </Asked>
        </Part>
        <Part name="Codes for a forgotten password">
          <Codes />
        </Part>
        <Part name="Change your name">
          <Asked fields={OTHER_NAME} act="Change the name" onDone={onClose} call={({ name = '', password = '' }) => answer(client.PUT('/api/v1/me/name', { body: { name, password } }))} />
        </Part>
        <Part name="Where you are signed in">
          <Browsers />
        </Part>
        <Part name="Delete everything of yours">
          <Asked fields={[YOURS]} act="Delete it for good" onDone={onClose} call={({ password = '' }) => answer(client.POST('/api/v1/me/end', { body: { password } }))}>
            <p className="text-quiet">You, and every kitchen in which nobody else works, with all its batches, are deleted for good. What you recorded in the kitchens of others stays there, without your name.</p>
            <p>
              <a href="/api/v1/kitchen/file" download className="inline-flex min-h-12 items-center font-semibold underline">
                Take the kitchen away in a file first
              </a>
            </p>
          </Asked>
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

interface Field {
  of: string
  label: string
  autoComplete: string
  hint?: string
}

interface AskedProps {
  fields: readonly Field[]
  act: string
  call: (told: Record<string, string>) => Promise<Session>
  onDone: () => void
  children?: ReactNode
}

/** A few fields that change who is signed in, each with what is wrong with it beside it. */
function Asked({ fields, act, call, onDone, children }: AskedProps) {
  const [told, setTold] = useState<Record<string, string>>({})
  const change = useSessionChange(call)
  return (
    <form
      className="grid gap-4"
      onSubmit={(event) => {
        event.preventDefault()
        change.mutate(told, { onSuccess: onDone })
      }}
    >
      {children}
      {fields.map(({ of, label, autoComplete, hint }) => (
        <TextField
          key={of}
          label={label}
          type={autoComplete.endsWith('password') ? 'password' : 'text'}
          autoComplete={autoComplete}
          required
          {...(hint && { hint })}
          value={told[of] ?? ''}
          onChange={(next) => setTold({ ...told, [of]: next })}
          error={change.error?.at(of)}
        />
      ))}
      <Rest problem={change.error} beside={fields.map(({ of }) => of)} />
      <Button type="submit" disabled={change.isPending || fields.some(({ of }) => !told[of])}>
        {act}
      </Button>
    </form>
  )
}

const YOURS = { of: 'password', label: 'Your password', autoComplete: 'current-password' }
const OTHER_PASSWORD = [
  { of: 'old', label: 'Password now', autoComplete: 'current-password' },
  { of: 'new', label: 'New password', autoComplete: 'new-password', hint: 'Twelve characters or more' },
]
const OTHER_NAME = [{ of: 'name', label: 'New name', autoComplete: 'username' }, YOURS]

/** Codes that open once each, shown when they are drawn. */
function Codes() {
  const left = useQuery<Schemas['CodesLeftOut'], Problem>({ queryKey: ['codes'], queryFn: ({ signal }) => answer(client.GET('/api/v1/me/codes', { signal })) })
  const [password, setPassword] = useState('')
  const [copied, setCopied] = useState(false)
  const draw = useMutation<Schemas['CodesOut'], Problem, string>({ mutationFn: (password) => answer(client.POST('/api/v1/me/codes', { body: { password } })) })
  if (draw.data)
    return (
      <>
        <p className="mb-2 font-semibold">Write these down where you find them again. Each opens once, and they are shown only now.</p>
        <ul aria-label="Your codes" className="grid grid-cols-2 gap-x-4 gap-y-1 font-mono text-lg select-all">
          {draw.data.codes.map((code) => (
            <li key={code}>{code}</li>
          ))}
        </ul>
        <Button className="mt-3" onClick={() => void navigator.clipboard.writeText(draw.data.codes.join('\n')).then(() => setCopied(true), () => undefined)}>
          {copied ? 'Copied' : 'Copy them'}
        </Button>
      </>
    )
  return (
    <form
      className="grid gap-4"
      onSubmit={(event) => {
        event.preventDefault()
        draw.mutate(password)
      }}
    >
      <p className="text-quiet">
        A code signs you in once, to choose a new password. {left.data && (left.data.left > 0 ? `You have ${left.data.left} left; new ones take their place.` : 'You have none yet.')}
      </p>
      <TextField label={YOURS.label} autoComplete={YOURS.autoComplete} type="password" required value={password} onChange={setPassword} error={draw.error?.at('password')} />
      <Rest problem={draw.error} beside={['password']} />
      <Button type="submit" disabled={draw.isPending || !password}>
        Draw new codes
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
