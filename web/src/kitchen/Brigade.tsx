import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { useArrange, useBrigade, useKitchens, useMove, type Role } from '../api/brigade'
import { answer, client, type Problem, type Schemas } from '../api/client'
import { keys } from '../api/keys'
import { clock, day } from '../shared/clock'
import { Words } from '../shared/units'
import { Pick } from '../shared/Ask'
import { Button } from '../ui/Button'
import { Sheet } from '../ui/Sheet'

const ROLES: readonly { value: Role; label: string }[] = [
  { value: 'owner', label: 'owner' },
  { value: 'cook', label: 'cook' },
  { value: 'guest', label: 'guest' },
]

/** Who works in the kitchen and what they may do; whoever owns it invites, changes and removes. */
export function Brigade() {
  const brigade = useBrigade()
  const [invited, setInvited] = useState<Schemas['IssuedInvitationOut']>()
  const invite = useArrange((role: Role) => answer(client.POST('/api/v1/kitchen/invitations', { body: { role } })))
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
          <PersonRow key={person.id} person={person} owns={owns} alone={people.length === 1} />
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
                    A {one.role} is invited{one.by && <> by {one.by}</>}, until {day(one.expires_at)}
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
      {invited && <Invited one={invited} onClose={() => setInvited(undefined)} />}
    </section>
  )
}

function PersonRow({ person, owns, alone }: { person: Schemas['PersonOut']; owns: boolean; alone: boolean }) {
  const person_id = Number(person.id)
  const change = useArrange((role: Role) => answer(client.PATCH('/api/v1/kitchen/people/{person_id}', { params: { path: { person_id } }, body: { role } })))
  const [asking, setAsking] = useState(false)
  const gone = () => answer(client.DELETE('/api/v1/kitchen/people/{person_id}', { params: { path: { person_id } } }))
  const remove = useArrange(gone)
  const leave = useMove(gone)
  const ends = person.you ? leave : remove
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
        {(change.error ?? ends.error) && (
          <p role="alert" className="font-medium text-heat">
            {(change.error ?? ends.error)?.message}
          </p>
        )}
      </div>
      {owns ? <Pick label={`Role of ${person.name}`} value={person.role} options={ROLES} onPick={(role) => change.mutate(role)} /> : <span>{person.role}</span>}
      {(owns || person.you) && !alone && (
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

/** The code, shown this once: as a link, and to be read out. */
function Invited({ one, onClose }: { one: Schemas['IssuedInvitationOut']; onClose: () => void }) {
  const link = `${location.origin}/join/${one.code}`
  const [copied, setCopied] = useState(false)
  return (
    <Sheet open onClose={onClose} title={`A ${one.role} is invited`} description={`It opens once, until ${day(one.expires_at)}, and is shown only now.`}>
      <p className="mb-1 text-quiet">The link to send:</p>
      <p className="mb-3 rounded-xl border-2 border-line px-3 py-2 font-mono break-all select-all">{link}</p>
      <p className="mb-1 text-quiet">Or the code to read out, for “Join a kitchen” in the menu:</p>
      <p className="mb-4 text-3xl font-bold tracking-widest select-all">{one.code}</p>
      <Button look="main" onClick={() => void navigator.clipboard.writeText(link).then(() => setCopied(true), () => undefined)}>
        {copied ? 'Copied' : 'Copy the link'}
      </Button>
    </Sheet>
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
