import { useState } from 'react'
import { useLocation } from 'wouter'
import { useMove } from '../api/brigade'
import { answer, client } from '../api/client'
import { Button } from '../ui/Button'
import { TextField } from '../ui/TextField'
import { Rest } from '../shared/Rest'

interface Props {
  code: string
  /** Whoever is not signed in begins at once, and takes a name later. */
  onFirst: () => Promise<unknown>
}

/** An invitation is opened: by its link, or by the code that somebody read out. */
export default function JoinPage({ code, onFirst }: Props) {
  const [said, setSaid] = useState(code)
  const [, go] = useLocation()
  const join = useMove(async (code: string) => {
    await onFirst()
    return answer(client.POST('/api/v1/kitchen/joins', { body: { code } }))
  })
  return (
    <main className="mx-auto grid min-h-dvh max-w-xl content-center gap-4 px-5 py-8">
      <h1 className="text-3xl">Join a kitchen</h1>
      <p className="text-quiet">You work in it at once. A name and a password can follow, so that the others know who recorded what.</p>
      <form
        className="grid gap-4"
        onSubmit={(event) => {
          event.preventDefault()
          join.mutate(said, { onSuccess: () => go('/') })
        }}
      >
        <TextField label="The code you were given" value={said} onChange={setSaid} error={join.error?.at('code')} autoComplete="off" autoCapitalize="none" spellCheck={false} maxLength={60} />
        <Rest problem={join.error} beside={['code']} />
        <div className="flex flex-wrap gap-3">
          <Button type="submit" look="main" disabled={join.isPending || !said.trim()}>
            Join
          </Button>
          <Button onClick={() => go('/')}>Not now</Button>
        </div>
      </form>
    </main>
  )
}
