import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { useArrange, useBrigade, useKitchens, useMove, type GivenRole } from '../api/brigade'
import { answer, client, type Problem, type Schemas } from '../api/client'
import { keys } from '../api/keys'
import { clock, day } from '../shared/clock'
import { Words } from '../shared/units'
import { Pick } from '../shared/Ask'
import { Rest } from '../shared/Rest'
import { Button } from '../ui/Button'
import { Sheet } from '../ui/Sheet'
import { TextField } from '../ui/TextField'
import { CodeSheet } from './CodeSheet'

const ROLES: readonly { value: GivenRole; label: string }[] = [
  { value: 'owner', label: 'owner' },
  { value: 'cook', label: 'cook' },
  { value: 'guest', label: 'guest' },
]

/** Who works in the kitchen and what they may do; whoever owns it invites, changes and removes. */
export function Brigade() {
  const brigade = useBrigade()
  const [invited, setInvited] = useState<Schemas['IssuedInvitationOut']>()
  const [adding, setAdding] = useState(false)
  const invite = useArrange((role: GivenRole) => answer(client.POST('/api/v1/kitchen/invitations', { body: { role } })))
  const revoke = useArrange((invitation_id: string) => answer(client.DELETE('/api/v1/kitchen/invitations/{invitation_id}', { params: { path: { invitation_id } } })))
  if (!brigade.data) return null
  const { people, invitations, owns } = brigade.data
  return (
    <section aria-labelledby="brigade" className="mt-10">
      <h2 id="brigade" className="mb-1 text-xl">
        Who works here
      </h2>
      <ul className="divide-y divide-line border-y border-line">
        {people.map((person) => (
          <PersonRow key={person.id} person={person} owns={owns} last={person.role === 'owner' && people.filter(({ role }) => role === 'owner').length === 1} />
        ))}
      </ul>
      {owns && (
        <>
          <div className="mt-3 flex flex-wrap items-center gap-2">
            {ROLES.map(({ value, label }) => (
              <Button key={value} disabled={invite.isPending} onClick={() => invite.mutate(value, { onSuccess: setInvited })}>
                {`Invite ${value === 'owner' ? 'an' : 'a'} ${label}`}
              </Button>
            ))}
            <Button onClick={() => setAdding(true)}>Add a tablet of the kitchen</Button>
          </div>
          {invite.isError && (
            <p role="alert" className="mt-1 font-medium text-heat">
              {invite.error.message}
            </p>
          )}
          {invitations.length > 0 && (
            <ul aria-label="Invited" className="mt-2">
              {invitations.map((one) => (
                <li key={one.id} className="flex flex-wrap items-center gap-x-4">
                  <span className="flex-1 text-quiet">
                    {one.role === 'station' ? 'A tablet may join' : `A ${one.role} is invited`}
                    {one.by && <> by {one.by}</>}, until {day(one.expires_at)}
                  </span>
                  <button type="button" className="min-h-12 font-semibold underline" onClick={() => revoke.mutate(one.id)}>
                    Take it back
                  </button>
                </li>
              ))}
            </ul>
          )}
          <Deeds />
        </>
      )}
      <Kitchens />
      {adding && (
        <Station
          onMade={(made) => {
            setAdding(false)
            setInvited(made)
          }}
          onClose={() => setAdding(false)}
        />
      )}
      {invited && <Invited one={invited} onClose={() => setInvited(undefined)} />}
    </section>
  )
}

function PersonRow({ person, owns, last }: { person: Schemas['PersonOut']; owns: boolean; last: boolean }) {
  const person_id = Number(person.id)
  const change = useArrange((role: GivenRole) => answer(client.PATCH('/api/v1/kitchen/people/{person_id}', { params: { path: { person_id } }, body: { role } })))
  const [asking, setAsking] = useState(false)
  const [handed, setHanded] = useState<Schemas['ResetOut']>()
  const reset = useArrange(() => answer(client.POST('/api/v1/kitchen/people/{person_id}/reset', { params: { path: { person_id } } })))
  const gone = () => answer(client.DELETE('/api/v1/kitchen/people/{person_id}', { params: { path: { person_id } } }))
  const remove = useArrange(gone)
  const leave = useMove(gone)
  const ends = person.you ? leave : remove
  const problem = change.error ?? ends.error ?? reset.error
  return (
    <li className="flex flex-wrap items-center gap-x-4 py-1">
      <div className="min-w-48 flex-1">
        <p className="font-semibold break-words">
          {person.name}
          {person.you && <span className="font-normal text-quiet"> (you)</span>}
        </p>
        <p className="text-base text-quiet">
          <Words of={person.may} />
        </p>
        {problem && (
          <p role="alert" className="font-medium text-heat">
            {problem.message}
          </p>
        )}
      </div>
      {owns && !last && person.role !== 'station' ? <Pick label={`Role of ${person.name}`} value={person.role as GivenRole} options={ROLES} onPick={(role) => change.mutate(role)} /> : <span>{person.role === 'station' ? 'tablet' : person.role}</span>}
      {owns && person.resettable && (
        <Button disabled={reset.isPending} onClick={() => reset.mutate(undefined, { onSuccess: setHanded })}>
          <span>
            New password<span className="sr-only"> for {person.name}</span>
          </span>
        </Button>
      )}
      {handed && (
        <CodeSheet
          title={`A new password for ${person.name}`}
          description={`Hand this code over. It works once, until ${day(handed.expires_at)}, ${clock(handed.expires_at)}, and is shown only now.`}
          code={handed.code}
          typed="They tap “I forgot my password” where they sign in, and type:"
          onClose={() => setHanded(undefined)}
        />
      )}
      {(owns || person.you) && !last && (
        <Button onClick={() => (asking ? ends.mutate(undefined) : setAsking(true))}>
          <span>
            {asking ? (person.you ? 'Leave for good?' : 'Remove for good?') : person.you ? 'Leave' : 'Remove'}
            <span className="sr-only"> {person.name}</span>
          </span>
        </Button>
      )}
    </li>
  )
}

/** A tablet that stays in the kitchen is given its name. */
function Station({ onMade, onClose }: { onMade: (one: Schemas['IssuedInvitationOut']) => void; onClose: () => void }) {
  const [name, setName] = useState('')
  const add = useArrange((name: string) => answer(client.POST('/api/v1/kitchen/stations', { body: { name } })))
  return (
    <Sheet open onClose={onClose} title="A tablet of the kitchen" description="It stays by the stove and is nobody’s: whoever stands there records with it, under its name. It changes no pans and no people.">
      <form
        className="grid gap-4"
        onSubmit={(event) => {
          event.preventDefault()
          add.mutate(name, { onSuccess: onMade })
        }}
      >
        <TextField label="What it is called in the log" placeholder="tablet-by-the-pass" value={name} onChange={setName} error={add.error?.at('name')} autoComplete="off" maxLength={150} />
        <Rest problem={add.error} beside={['name']} />
        <Button type="submit" look="main" disabled={!name.trim() || add.isPending}>
          Make its code
        </Button>
      </form>
    </Sheet>
  )
}

/** The code of an invitation, or of a tablet. */
function Invited({ one, onClose }: { one: Schemas['IssuedInvitationOut']; onClose: () => void }) {
  const title = one.role === 'station' ? 'Open this on the tablet' : `A ${one.role} is invited`
  return (
    <CodeSheet
      title={title}
      description={`It opens once, until ${day(one.expires_at)}, and is shown only now.`}
      code={one.code}
      link={`${location.origin}/join/${one.code}`}
      typed="Or the code to read out, for “Join a kitchen” in the menu:"
      onClose={onClose}
    />
  )
}

/** The kitchens of whoever is here: one tap, and this browser works in another. */
function Kitchens() {
  const kitchens = useKitchens(true)
  const move = useMove((kitchen_id: string) => answer(client.PUT('/api/v1/session/kitchen', { body: { kitchen_id } })))
  if (!kitchens.data || kitchens.data.length < 2) return null
  return (
    <div className="mt-4">
      <h3 className="mb-1 text-base text-quiet">Your kitchens</h3>
      <div className="flex flex-wrap gap-2">
        {kitchens.data.map((one) => (
          <Button key={one.id} aria-pressed={one.here} disabled={one.here || move.isPending} onClick={() => move.mutate(one.id)}>
            {one.name}
          </Button>
        ))}
      </div>
    </div>
  )
}

/** What was done to people, pans, devices and limits, for an owner to read. */
function Deeds() {
  const [open, setOpen] = useState(false)
  const deeds = useQuery<Schemas['DeedOut'][], Problem>({ queryKey: [...keys.brigade, 'deeds'], queryFn: ({ signal }) => answer(client.GET('/api/v1/kitchen/deeds', { signal })), enabled: open })
  if (!open)
    return (
      <button type="button" className="mt-1 min-h-12 font-semibold underline" onClick={() => setOpen(true)}>
        Who changed what
      </button>
    )
  return (
    <ul aria-label="Who changed what" className="mt-2 max-h-80 divide-y divide-line overflow-y-auto border-y border-line">
      {deeds.data?.length === 0 && <li className="py-2 text-quiet">Nothing yet.</li>}
      {deeds.data?.map((one, at) => (
        <li key={at} className="py-1.5">
          <Words of={one.said} /> <span className="text-quiet">{one.by}, {day(one.at)}, {clock(one.at)}</span>
        </li>
      ))}
    </ul>
  )
}
