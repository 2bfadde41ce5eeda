import { use, useState, type ReactNode } from 'react'
import { Link, useLocation } from 'wouter'
import { answer, client } from '../api/client'
import { useSession, useSessionChange, useSetUnits } from '../api/session'
import { useRights } from '../api/rights'
import { Menu } from '../ui/Menu'
import { loudness, switchLoudness } from './loudness'
import { Shell } from './surroundings'
import { switchTheme, theme } from './theme'
import type { UnitSystem } from './units'
import { canSpeak, readsAloud, switchVoice } from './voice'

interface Props {
  title?: string
  detail?: string
  /** What the menu holds besides, on this page. */
  more?: { label: string; onSelect: () => void }[]
  children?: ReactNode
}

/** The line on top: where one is, and the few things that are the same everywhere. */
export function Header({ title, detail, more = [], children }: Props) {
  const session = useSession()
  const rights = useRights()
  const [, go] = useLocation()
  const [, redraw] = useState(0)
  const { ask } = use(Shell)
  const setUnits = useSetUnits()
  const signOut = useSessionChange((_: undefined) => answer(client.DELETE('/api/v1/session')))
  const units = session.data?.units ?? 'metric'
  const other: UnitSystem = units === 'metric' ? 'us' : 'metric'
  return (
    <>
      {signOut.isError && (
        <p role="alert" className="px-4 pt-2 font-medium text-heat md:px-7">
          You are still signed in. {signOut.error.message}
        </p>
      )}
      <header className="flex flex-wrap items-center gap-x-2 gap-y-1 md:gap-x-4 px-4 py-2 md:flex-nowrap md:px-7">
        <Link href="/" className="flex min-h-12 items-center text-xl font-extrabold tracking-tight" aria-label="Spissus, to the batches">
          spissus
        </Link>
        {title && (
          <div className="min-w-0 flex-1 border-line leading-tight max-md:order-last max-md:w-full max-md:flex-none md:border-l md:pl-4">
            <h1 tabIndex={-1} className="line-clamp-2 text-lg leading-tight break-words outline-none" title={title}>{title}</h1>
            {detail && <p className="hidden text-sm leading-tight text-quiet lg:block">{detail}</p>}
          </div>
        )}
        <span className="flex-1 md:hidden" />
        <div className="ml-auto flex items-center gap-2 max-md:contents">
          {children}
          <button
            type="button"
            className="pill hidden lg:inline-flex"
            title={`Switch to ${other === 'metric' ? 'metric' : 'US'} measures`}
            onClick={() => setUnits.mutate(other)}
          >
            <span className="sr-only">Units: </span>
            {units === 'metric' ? 'mL · g' : 'cups · oz'}
          </button>
          <Menu
            label="Menu"
            trigger={<span aria-hidden="true">☰</span>}
            items={[
              ...more,
              { label: 'Batches', onSelect: () => go('/') },
              ...(rights.records ? [{ label: 'Start a batch', onSelect: () => go('/start') }] : []),
              { label: 'What does it mean?', onSelect: () => ask('explained:') },
              { label: 'House dishes', onSelect: () => go('/house-dishes') },
              { label: 'Kitchen: pans, burners, larder', onSelect: () => go('/kitchen') },
              {
                label: units === 'metric' ? 'Use US measures' : 'Use metric measures',
                onSelect: () => setUnits.mutate(other),
              },
              {
                label: theme() === 'dark' ? 'Daylight colours' : 'Dim-kitchen colours',
                onSelect: () => {
                  switchTheme()
                  redraw((n) => n + 1)
                },
              },
              {
                label: loudness() === 'loud' ? 'Usual alarm' : 'Louder, bigger alarm',
                onSelect: () => {
                  switchLoudness()
                  redraw((n) => n + 1)
                },
              },
              ...(canSpeak()
                ? [
                    {
                      label: readsAloud() ? 'Stop reading aloud' : 'Read aloud at each look',
                      onSelect: () => {
                        switchVoice()
                        redraw((n) => n + 1)
                      },
                    },
                  ]
                : []),
              ...(session.data?.role === 'station' ? [] : [{ label: 'Join a kitchen', onSelect: () => go('/join') }]),
              ...(session.data?.claimed === false
                ? [
                    { label: 'Keep this kitchen', onSelect: () => ask('claim') },
                    { label: 'Sign in to another', onSelect: () => ask('sign-in') },
                  ]
                : [
                    ...(rights.somebody ? [{ label: 'You: name, password, browsers', onSelect: () => ask('oneself') }] : []),
                    { label: `Sign out ${session.data?.name ?? ''}`, onSelect: () => signOut.mutate(undefined) },
                  ]),
            ]}
          />
        </div>
      </header>
    </>
  )
}
