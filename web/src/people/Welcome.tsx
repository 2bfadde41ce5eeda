import { useMutation } from '@tanstack/react-query'
import { Suspense, useRef, useState } from 'react'
import { answer, client, type Problem } from '../api/client'
import { useSessionChange } from '../api/session'
import { Button } from '../ui/Button'
import { part } from '../ui/part'
import { TextField } from '../ui/TextField'
import { NameForm } from './NameForm'
import { withItsZone } from './zone'

const Example = part(() => import('./Example'))

interface Props {
  demoOffered: boolean
  /** Somebody began to type what they have: `said` tells how far they have come. */
  onBegin: (said: () => string) => Promise<void>
}

/** The way in: begin at once with what is in the pan; look around; or a kitchen that has a name. */
export function Welcome({ demoOffered, onBegin }: Props) {
  const [joining, setJoining] = useState(false)
  const [said, setSaid] = useState('')
  const latest = useRef('')
  const visit = useMutation<unknown, Problem>({ mutationFn: () => onBegin(() => latest.current) })
  const begin = (text: string) => {
    latest.current = text
    setSaid(text)
    if (text.trim() !== '' && (visit.isIdle || visit.isError)) visit.mutate()
  }
  const demo = useSessionChange((_: undefined) => answer(client.POST('/api/v1/session/demo')).then(withItsZone))
  return (
    <main className="mx-auto flex min-h-dvh max-w-5xl flex-col justify-center gap-8 px-5 py-8">
      <div>
        <h1 className="text-4xl font-extrabold tracking-tight md:text-5xl">spissus</h1>
        <p className="mt-2 max-w-2xl text-xl text-quiet">
          From the strained liquid of a braise to a finished sauce: how far to boil it down, how much to thicken it, and how
          salty it will be by then.
        </p>
      </div>
      <TextField
        label="What have you strained? Begin to type, and the pot fills."
        placeholder="a bit over two litres, half a centimetre of fat, nearly right for salt"
        value={said}
        onChange={begin}
        error={visit.error?.message}
        maxLength={500}
        autoComplete="off"
        autoFocus
      />
      {/* Nothing moves under a finger while it comes and plays: its room is kept, and where it may wrap it stands last. */}
      <div className="min-h-[326px] max-md:order-last max-md:min-h-0 lying:order-last lying:min-h-0">
        <Suspense>
          <Example quiet={said !== ''} />
        </Suspense>
      </div>
      <div className="grid gap-8 md:grid-cols-[1fr_1.1fr]">
        {demoOffered && (
          <section aria-label="Look around">
            <h2 className="mb-2 text-xl">Look around</h2>
            <p className="mb-4 text-quiet">A made-up guest-house kitchen, with sauces at every stage: yours alone, for a week.</p>
            <Button look="main" className="w-full sm:w-auto" onClick={() => demo.mutate(undefined)}>
              Step into the demo kitchen
            </Button>
            {demo.isError && <p role="alert" className="mt-2 text-heat">{demo.error.message}</p>}
          </section>
        )}
        <section aria-label={joining ? 'Sign up' : 'Sign in'}>
          <h2 className="mb-2 text-xl">{joining ? 'Open a kitchen of your own' : 'Sign in'}</h2>
          <NameForm joining={joining} look={demoOffered ? 'plain' : 'main'} act={joining ? 'Open the kitchen' : 'Sign in'} onJoining={setJoining} />
        </section>
      </div>
    </main>
  )
}
