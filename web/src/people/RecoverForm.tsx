import { useState } from 'react'
import { answer, client, type Schemas } from '../api/client'
import { useSessionChange } from '../api/session'
import { Rest } from '../shared/Rest'
import { Button } from '../ui/Button'
import { TextField } from '../ui/TextField'

type Recovered = Schemas['RecoverIn']

const FIELDS: readonly { of: keyof Recovered; label: string; type?: string; autoComplete: string; hint?: string }[] = [
  { of: 'name', label: 'Name', autoComplete: 'username' },
  { of: 'code', label: 'Code', autoComplete: 'off', hint: 'One of those you kept, or one that an owner of your kitchen hands you' },
  { of: 'password', label: 'New password', type: 'password', autoComplete: 'new-password', hint: 'Twelve characters or more' },
]

/** A forgotten password: a code, once, and the password from now on. */
export default function RecoverForm({ name, onBack, onDone }: { name: string; onBack: () => void; onDone?: (() => void) | undefined }) {
  const [told, setTold] = useState<Recovered>({ name, code: '', password: '' })
  const recover = useSessionChange((body: Recovered) => answer(client.POST('/api/v1/session/recovery', { body })))
  return (
    <form
      className="grid gap-3"
      onSubmit={(event) => {
        event.preventDefault()
        recover.mutate(told, onDone ? { onSuccess: onDone } : {})
      }}
    >
      {FIELDS.map(({ of, ...field }) => (
        <TextField key={of} {...field} required value={told[of]} onChange={(next) => setTold({ ...told, [of]: next })} error={recover.error?.at(of)} autoCapitalize="none" spellCheck={false} />
      ))}
      <Rest problem={recover.error} beside={FIELDS.map(({ of }) => of)} />
      <p className="text-quiet">Without a code, whoever keeps this place sets a new password for you.</p>
      <div className="flex flex-wrap items-center gap-3">
        <Button type="submit" look="main" disabled={recover.isPending}>
          Set it and sign in
        </Button>
        <button type="button" className="min-h-12 px-2 font-semibold underline" onClick={onBack}>
          Back
        </button>
      </div>
    </form>
  )
}
