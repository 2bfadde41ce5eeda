import { use, useEffect, useState, type ReactNode } from 'react'
import { Link } from 'wouter'
import type { Problem } from '../api/client'
import { useSentence, useStartPreview } from '../api/previews'
import type { Kitchen } from '../api/types'
import { Header } from '../shared/Header'
import { STAGES } from '../stages/registry'
import { clock } from '../shared/clock'
import { useNow } from '../shared/useNow'
import { Units, useExample, useSay, Words } from '../shared/units'
import { Ribbon } from '../figures/Ribbon'
import { Button } from '../ui/Button'
import { TextField } from '../ui/TextField'
import { ByTheList } from '../shared/ByTheList'
import { COOKED_FIELDS, Cooked } from './Cooked'
import { assumed, changed, missing, previewOf, unsureLines, withSentence, type Draft } from './draft'
import { Telling, TELLING_FIELDS } from './Telling'
import { useSettled } from '../shared/useSettled'
import { WentIn } from './WentIn'
import { Rest } from '../shared/Rest'

interface Props {
  title: string
  kitchen: Kitchen
  initial: Draft
  onDraft?: (draft: Draft) => void
  problem: Problem | null
  busy: boolean
  /** The pots that are on the heat already. */
  boiling?: readonly { name: string; burner: string | null }[]
  act: string
  /** What else it may begin with. */
  otherwise?: ReactNode
  onDone: (draft: Draft) => void
}

/** What is in the pan. It can be said in a sentence, tapped word by word, dragged, or read off a list. */
export function StartForm({ title, kitchen, initial, onDraft, problem, busy, boiling = [], act, otherwise, onDone }: Props) {
  const [draft, setDraft] = useState(initial)
  const say = useSay()
  const eg = useExample()
  const units = use(Units)
  const settled = useSettled(draft)
  const preview = useStartPreview(previewOf(settled), assumed(settled, 'panId'), unsureLines(settled))
  const asking = useSettled(draft.said, 250)
  const sentence = useSentence(asking, draft.panId, units)
  // A sentence of which nothing was heard yet was typed before this page stood.
  const [taken, setTaken] = useState(Object.keys(initial.heard).length > 0 ? initial.said : '')
  // Each change is one of the draft as it is by then: an answer that comes late takes back nothing said since.
  const change = (part: Partial<Draft>) => setDraft((now) => changed(now, part))
  useEffect(() => {
    if (draft !== initial) onDraft?.(draft)
    // The page that keeps it makes both anew at every turn; only what is said counts.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [draft])
  // What was just read of the sentence goes into the draft once, and can then be said otherwise.
  if (asking === draft.said && taken !== draft.said && (sentence.data ?? !asking.trim())) {
    setTaken(draft.said)
    const heard = asking.trim() ? (sentence.data ?? null) : null
    setDraft((now) => withSentence(now, heard))
  }
  // While nobody has said which pan it is, it is the smallest that suits.
  const suits = preview.data?.pan_id
  if (suits && !preview.isPlaceholderData && assumed(draft, 'panId') && suits !== draft.panId) {
    setDraft((now) => ({ ...now, panId: suits }))
  }
  const pan = kitchen.pans.find((p) => p.id === draft.panId)
  const burner = kitchen.burners.find(({ id }) => id === draft.burnerId)?.name
  const beside = boiling.find((one) => burner !== undefined && one.burner === burner)
  const open = missing(draft)
  const filled = open !== 'amount'
  const wrong = problem ?? (filled ? preview.error : null)
  const shown = filled && !preview.isError ? preview.data : undefined
  const pot = shown?.pot
  // A line that may be half of the salt is asked about before any figure of it is shown.
  const saltSaid = open === null && !shown?.ask_first
  const now = useNow()
  if (kitchen.pans.length === 0) {
    return (
      <>
        <Header title={title} />
        <main className="px-7 py-16 text-lg">
          The kitchen has no pans yet. <Link href="/kitchen" className="font-semibold underline">Add the one you reduce in</Link>.
        </main>
      </>
    )
  }
  return (
    <div className="flex min-h-dvh flex-col">
      <Header title={title}>
        {otherwise}
        <TextField
          label="What is it?"
          hideLabel
          placeholder="What is it? Pork cheek in dry cider"
          value={draft.name}
          onChange={(name) => change({ name })}
          error={problem?.at('name')}
          maxLength={120}
          className="w-96 max-w-full max-md:order-last max-md:w-full"
        />
      </Header>
      <div className="px-4 md:px-7">
        <Ribbon
          stages={STAGES}
          stretches={(shown?.ribbon ?? []).map((s) => ({
            ...s, volume: say(s.liquid), salt: open === 'salt' ? '' : `${s.salt_percent.toFixed(2)} %`, fat: null, vapour: null, added: null,
          }))}
          fullMl={pan?.capacity.value}
          ahead={pot ? 'Say what you want, and the rest is drawn here.' : 'The sauce’s way begins here.'}
          next={null}
          open="strain"
          clock={clock(now)}
          low
        />
      </div>
      <main className="grid flex-1 grid-cols-[minmax(0,1fr)] content-start gap-x-10 gap-y-3 px-4 pt-2 pb-8 md:px-7 lg:grid-cols-[minmax(0,1.1fr)_minmax(0,1fr)]">
        <form
          id="start"
          className="lg:col-span-2"
          onSubmit={(event) => {
            event.preventDefault()
            onDone(draft)
          }}
        >
          <TextField
            label="Say what you have, all in one go or word by word below"
            placeholder={eg('a bit over two litres, half a centimetre of fat, nearly right for salt', 'a bit over two quarts, a quarter inch of fat, nearly right for salt')}
            value={draft.said}
            onChange={(said) => setDraft((now) => ({ ...now, said }))}
            maxLength={500}
            autoComplete="off"
            autoFocus
          />
          {sentence.data && sentence.data.unread.length > 0 && taken === draft.said && (
            <p className="mt-1 text-quiet">Not understood: {sentence.data.unread.map((part) => `“${part}”`).join(', ')}. Tap the words below instead.</p>
          )}
        </form>
        <section aria-label="The pot" className="lg:sticky lg:top-3 lg:self-start">
          <Telling draft={draft} change={change} kitchen={kitchen} pot={pot} wrong={wrong} />
          {beside && (
            <p role="status" className="font-medium">
              “{beside.name}” stands on that burner already. Is it another one?
            </p>
          )}
          <p className="text-quiet">{pot ? 'Drag the level to put it right.' : 'Drag the level up to where the liquid stands, or say it.'}</p>
        </section>
        <div className="grid min-w-0 content-start gap-4">
          <dl className="grid grid-cols-3 gap-3" aria-live="polite">
            <Told name="liquid" value={pot ? say(pot.liquid) : '–'} note={pot ? `± ${say(pot.liquid_error)}` : ''} />
            <Told name="fat" value={pot ? (pot.fat.value > 1 ? say(pot.fat) : 'none') : '–'} note={pot && pot.fat.value > 1 ? `${say(pot.fat_depth)} thick` : ''} />
            <Told
              name="salt"
              value={pot && saltSaid ? `${pot.salt.best.toFixed(2)} %` : '–'}
              note={pot && saltSaid ? `${pot.salt.low.toFixed(2)} to ${pot.salt.high.toFixed(2)}` : ''}
            />
          </dl>
          {shown?.doubt && !shown.estimated && <p className="font-medium"><Words of={shown.doubt} /></p>}
          <WentIn lines={draft.lines} onLines={(next) => setDraft((now) => changed(now, { lines: next(now.lines) }))} />
          {draft.lines.length > 0 && (
            <Cooked cooked={draft.cooked} change={(part) => setDraft((now) => changed(now, { cooked: { ...now.cooked, ...part } }))} assumed={(key) => assumed(draft, key)} wrong={wrong} />
          )}
          {shown?.ask_first && (
            <p role="status" className="border-l-4 border-salt pl-4 font-medium">
              <Words of={shown.ask_first} />
            </p>
          )}
          {shown?.estimated && !shown.ask_first && draft.lines.length > 0 && <ByTheList estimated={shown.estimated} doubt={shown.doubt} />}
        </div>
      </main>
      <section aria-label="Now" className="sticky bottom-0 z-30 bg-bar px-4 py-3 text-bar-ink md:px-7">
        <Rest problem={wrong} beside={['name', ...TELLING_FIELDS, ...(draft.lines.length > 0 ? COOKED_FIELDS : [])]} className="mb-2 text-[#ffb39c]" />
        <div className="flex flex-wrap items-center gap-x-4 gap-y-3 sm:gap-x-6">
          <p role="status" className="said min-w-40 flex-1 font-semibold text-balance">
            {nextWord(open, wrong !== null, pot ? say(pot.liquid) : null)}
          </p>
          <Button look="bar-main" type="submit" form="start" disabled={busy || open !== null || wrong !== null || taken !== draft.said}>
            {act}
          </Button>
        </div>
      </section>
    </div>
  )
}

/** The one thing to say next. */
function nextWord(open: ReturnType<typeof missing>, wrong: boolean, liquid: string | null): string {
  if (open === 'amount') return 'Say how much there is.'
  if (wrong) return 'Something does not fit. It is marked above.'
  if (open === 'salt') return 'Taste it: how salty is it?'
  return liquid ? `${liquid} of liquid: is that right?` : 'One moment.'
}

function Told({ name, value, note }: { name: string; value: string; note: string }) {
  return (
    <div>
      <dt className="text-quiet">{name}</dt>
      <dd className="text-2xl font-bold">{value}</dd>
      <dd className="min-h-6 text-quiet">{note}</dd>
    </div>
  )
}
