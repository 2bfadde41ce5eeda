import { useState } from 'react'
import { answer, client, type Schemas } from '../api/client'
import { useSessionChange } from '../api/session'
import { Button } from '../ui/Button'
import { Sheet } from '../ui/Sheet'
import { TextField } from '../ui/TextField'
import { Rest } from '../shared/Rest'

/** One's own password, changed; whoever else is signed in by the old one is signed out. */
export default function PasswordSheet({ onClose }: { onClose: () => void }) {
  const [form, setForm] = useState<Schemas['NewPassword']>({ old: '', new: '' })
  const change = useSessionChange((body: Schemas['NewPassword']) => answer(client.PUT('/api/v1/session/password', { body })))
  return (
    <Sheet open onClose={onClose} title="Change your password" description="Everywhere else you are signed in, you will be signed out.">
      <form
        className="grid gap-4"
        onSubmit={(event) => {
          event.preventDefault()
          change.mutate(form, { onSuccess: onClose })
        }}
      >
        <TextField label="Password now" type="password" autoComplete="current-password" required value={form.old} onChange={(old) => setForm({ ...form, old })} error={change.error?.at('old')} />
        <TextField label="New password" type="password" autoComplete="new-password" required hint="Ten characters or more" value={form.new} onChange={(next) => setForm({ ...form, new: next })} error={change.error?.at('new')} />
        <Rest problem={change.error} beside={['old', 'new']} />
        <Button type="submit" look="main" disabled={change.isPending || !form.old || !form.new}>
          Change it
        </Button>
      </form>
    </Sheet>
  )
}
