import { use, useState } from 'react'
import type { Batch, Payload } from '../api/types'
import { useLists } from '../api/lists'
import { useThickeners } from '../api/mixtures'
import { useShelf } from '../api/shelf'
import { Explain } from '../shared/Explain'
import { day } from '../shared/clock'
import { useKept } from '../shared/useKept'
import { Units, useExample, useSay } from '../shared/units'
import { cannotBe } from '../shared/useStands'
import { useSettled } from '../shared/useSettled'
import { Changes } from '../shared/Changes'
import { useForeseen } from '../api/finishing'
import { SpoonRow } from '../figures/SpoonRow'
import { Button } from '../ui/Button'
import { Choice } from '../ui/Choice'
import { Sheet } from '../ui/Sheet'
import { TextField } from '../ui/TextField'
import { IngredientSearch } from '../shared/IngredientSearch'
import type { Append } from './LogSheet'

interface Props {
  batch: Batch
  append: Append
  onClose: () => void
}

type Method = Batch['pot']['methods'][number]['method']

/** Whether a thumb types: the system's own keyboard would lie over the keypad. */
const THUMB = window.matchMedia('(pointer: coarse)').matches
const ENDS_A_NUMBER = [...'0123456789.⅛¼⅓⅜½⅝⅔¾⅞']
const KEYPAD = ['7', '8', '9', '4', '5', '6', '1', '2', '3', '.', '0', '⌫']

const MISREAD = { label: 'It was misread', says: { gain: 'misread' } }

/** What is asked of a reading that cannot be, and what may be answered: what the server would ask, too. */
const CANNOT_BE = {
  more: { says: 'That is more than there should be. Did you add something, did it boil less, or was it misread?', answers: [{ label: 'I added liquid', says: { gain: 'added' } }, { label: 'It boiled less', says: { gain: 'right' } }, MISREAD] },
  less: {
    says: 'So much cannot have boiled away since the last look. Is it right, was some poured off, or was it misread?',
    answers: [{ label: 'It is right', says: { gain: 'right' } }, { label: 'Some was poured off', says: { gain: 'poured' } }, MISREAD],
  },
} as const

/** A reading of the pot: a method and a number, for a wet thumb. */
export function ReadingSheet({ batch, append, onClose }: Props) {
  const say = useSay()
  // It opens on what the sentence was told in, or on what was looked at last on the stage.
  const [inUse] = useKept<Method>(`reads-${batch.id}`)
  const [method, setMethod] = useState<Method | 'meter'>(
    () => batch.pot.methods.find((m) => m.usable && m.method === (batch.act.measure ?? inUse ?? batch.act.reads_by))?.method ?? batch.pot.methods.find((m) => m.best)?.method ?? 'dip',
  )
  const { ways_to_measure: names } = useLists()
  const system = use(Units)
  const meter = method === 'meter'
  const unit = meter ? '%' : (names.find(({ key }) => key === method)?.unit[system] ?? '')
  const [kept, setValue] = useKept<string>(`reading-${batch.id}`)
  const value = kept ?? ''
  const [hot, setHot] = useState(true)
  // Without a unit of its own it is in the one that was asked for; a bare number the server takes as metric, and asks
  // where it may be something else.
  const own = meter || system === 'metric' || !ENDS_A_NUMBER.includes(value.trim().at(-1) ?? ' ')
  const send = (answer: Record<string, string> = {}) =>
    append.mutate(
      meter ? { kind: 'metered', percent: value, ...answer } : { kind: 'read', measured: { method, value: own ? value : `${value.trim()}\u00a0${unit}`, hot }, ...answer },
      { onSuccess: () => { setValue(null); onClose() } },
    )
  // What cannot be is asked about before anything is sent: alone with the pot there is nobody else to ask.
  const [wrong, setWrong] = useState<keyof typeof CANNOT_BE | null>(null)
  // What was left standing here is written over by the first key, not added to.
  const [begun, setBegun] = useState(false)
  const press = (key: string) => {
    const before = begun ? value : ''
    setValue(key === '⌫' ? before.slice(0, -1) : before + key)
    setBegun(true)
    setWrong(null)
  }
  const answers: readonly { label: string; says: Record<string, string> }[] = wrong ? CANNOT_BE[wrong].answers : (append.error?.answers ?? [])
  const ask = () => {
    const found = meter ? null : cannotBe(batch, { method, value: own ? value : `${value.trim()}\u00a0${unit}`, hot }, names.find(({ key }) => key === method)?.unit ?? {}, Date.now())
    if (found) setWrong(found)
    else send()
  }
  const off = batch.pot.methods.find((m) => m.method === method)
  return (
    <Sheet open onClose={onClose} title="Reading" description={meter ? 'Off the boil, stirred. It tells the salt, and so how far it has come down.' : `Off the boil, bubbles settled. This one is good to ± ${off ? say(off.error) : ''}.`}>
      <form
        className="grid gap-4"
        onSubmit={(event) => {
          event.preventDefault()
          ask()
        }}
      >
        <div className="flex flex-wrap justify-between gap-3">
          <Choice
            label="By"
            hideLabel
            value={method}
            onChange={(next) => {
              setMethod(next)
              setValue('')
              setWrong(null)
              append.reset()
            }}
            options={[
              ...batch.pot.methods.map((m) => ({
                value: m.method,
                label: names.find(({ key }) => key === m.method)?.label ?? m.method,
                disabled: !m.usable,
              })),
              { value: 'meter', label: 'Salt meter' },
            ]}
          />
          {!meter && <Choice
            label="Hot or cold"
            hideLabel
            value={hot ? 'hot' : 'cold'}
            onChange={(next) => setHot(next === 'hot')}
            options={[
              { value: 'hot', label: 'Hot' },
              { value: 'cold', label: 'Cold' },
            ]}
          />}
        </div>
        <Explain of="which">Jug, dip or scale?</Explain>
        <TextField
          label={`Reading, in ${unit === 'in' ? 'inches' : unit} or with its own unit`}
          value={value}
          onFocus={(event) => event.currentTarget.select()}
          onChange={(next) => {
            setValue(next)
            setBegun(true)
            setWrong(null)
            append.reset()
          }}
          error={wrong ? CANNOT_BE[wrong].says : append.error?.at('value', 'measured', 'percent') ?? append.error?.message}
          autoFocus
          // The keypad below is the one for a thumb.
          inputMode={THUMB ? 'none' : 'decimal'}
          autoComplete="off"
        />
        {answers.length > 0 ? (
          <div className="grid gap-2 sm:grid-cols-2">
            {answers.map(({ label, says }, i) => (
              <Button key={label} look={i === 0 ? 'main' : undefined} onClick={() => send(says)}>
                {label}
              </Button>
            ))}
          </div>
        ) : (
          <>
            <div className="grid grid-cols-3 gap-2" role="group" aria-label="Keypad">
              {KEYPAD.map((key) => (
                <Button key={key} className="text-2xl" onClick={() => press(key)} aria-label={key === '⌫' ? 'Delete' : key}>
                  {key}
                </Button>
              ))}
            </div>
            <Button type="submit" look="main" disabled={!value.trim() || append.isPending}>
              Keep the reading
            </Button>
          </>
        )}
      </form>
    </Sheet>
  )
}

type What = 'salt' | 'thickener' | 'other' | 'kept'

interface AddDraft {
  what: What
  amount: string
  school: string | null
  kindOfSalt: string | null
  key: string | null
}

/** So many thickeners are offered at first. */
const FEW_KINDS = 4

const NOTHING_ADDED: AddDraft = { what: 'salt', amount: '', school: null, kindOfSalt: null, key: null }

/** Something goes into the pot. */
export function AddSheet({ batch, append, onClose }: Props) {
  const eg = useExample()
  const say = useSay()
  const [draft, setDraft] = useKept<AddDraft>(`add-${batch.id}`)
  const { what, amount, school, kindOfSalt, key } = draft ?? NOTHING_ADDED
  const change = (part: Partial<AddDraft>) => {
    setDraft({ ...(draft ?? NOTHING_ADDED), ...part })
    append.reset()
  }
  const { salts } = useLists()
  const schools = useThickeners()
  const planned = schools.find((s) => s.key === batch.plan?.school)
  const thickener = schools.find((s) => s.key === school) ?? planned ?? schools[0]
  const [allKinds, setAllKinds] = useState(false)
  // The one that is in hand and the first of the list; the rest behind a tap.
  const few = schools.filter((s, i) => i < FEW_KINDS || s === planned || s === thickener)
  const salt = salts.find((s) => s.key === kindOfSalt) ?? salts[0]
  const shelf = useShelf()
  const kept = (shelf.data ?? []).filter((one) => one.batch !== batch.id)
  const jar = kept.find(({ id }) => id === key)
  const payload = (): Payload | null => {
    if (what === 'salt') return salt ? { kind: 'salted', salt_g: amount, salt: salt.key } : null
    if (what === 'thickener') return thickener ? { kind: 'thickened', thickener: thickener.key, dry_g: amount } : null
    if (what === 'kept') return jar && amount.trim() ? ({ kind: 'poured_in', jar: jar.id, batch: jar.batch, volume_ml: amount } as Payload) : null
    return key ? { kind: 'added', ingredient: key, amount } : null
  }
  const ready = payload()
  const asked = amount.trim() ? ready : null
  const settled = useSettled(asked, 250, JSON.stringify(asked))
  const foreseen = useForeseen(batch.id, batch.last_seq, settled)
  return (
    <Sheet open onClose={onClose} title="Add">
      <form
        className="grid gap-4"
        onSubmit={(event) => {
          event.preventDefault()
          if (ready) append.mutate(ready, { onSuccess: () => { setDraft(null); onClose() } })
        }}
      >
        <Choice
          label="What"
          hideLabel
          value={what}
          onChange={(next) => change({ what: next })}
          options={[
            { value: 'salt', label: 'Salt' },
            { value: 'thickener', label: 'Thickener' },
            { value: 'other', label: 'Something else' },
            ...(kept.length ? [{ value: 'kept' as const, label: 'What is kept' }] : []),
          ]}
        />
        {what === 'kept' && (
          <Choice
            label="Which"
            layout="stack"
            value={jar?.id}
            onChange={(next) => change({ key: next })}
            options={kept.map((one) => ({ value: one.id, label: `${say(one.volume)} ${one.name}`, hint: `${one.salt_percent.toFixed(2)} % salt, ${one.past ? 'past its date, ' : 'use by '}${day(one.use_by)}` }))}
          />
        )}
        {what === 'salt' && (
          <Choice
            label="Which salt"
            value={salt?.key}
            onChange={(next) => change({ kindOfSalt: next })}
            options={salts.map((s) => ({ value: s.key, label: s.label }))}
          />
        )}
        {what === 'thickener' && (
          <Choice
            label="Which thickener"
            value={thickener?.key}
            onChange={(next) => change({ school: next })}
            options={(allKinds ? schools : few).map((s) => ({ value: s.key, label: s.label }))}
          />
        )}
        {what === 'thickener' && !allKinds && few.length < schools.length && (
          <button type="button" className="min-h-12 justify-self-start font-semibold underline" onClick={() => setAllKinds(true)}>
            All {schools.length} kinds
          </button>
        )}
        {what === 'other' && <IngredientSearch label="Search" placeholder="resting juices" value={key} onChange={(next) => change({ key: next })} />}
        <TextField
          label={what === 'other' || what === 'kept' ? 'How much' : `Weight of the ${what === 'salt' ? 'salt' : (thickener?.dry ?? 'thickener')}`}
          placeholder={what === 'other' || what === 'kept' ? eg('100 ml', '1/2 cup') : what === 'salt' ? eg('1.5 g', '1/4 tsp') : eg('12 g', '1 1/2 tbsp')}
          value={amount}
          onChange={(next) => change({ amount: next })}
          error={append.error?.message}
          autoComplete="off"
        />
        {/* What does not fit is said when it is sent; while it is typed it may become anything. */}
        {settled && foreseen.data && !foreseen.isError && (
          <div role="status">
            <Changes changes={foreseen.data.changes} />
            {foreseen.data.nothing && <p className="text-quiet">{say(foreseen.data.nothing)}</p>}
            {foreseen.data.barred && <p className="font-semibold text-heat">{say(foreseen.data.barred)}</p>}
          </div>
        )}
        <Button type="submit" look="main" disabled={!ready || !amount.trim() || append.isPending}>
          {settled && foreseen.data?.barred ? 'It is in all the same' : 'It is in'}
        </Button>
      </form>
    </Sheet>
  )
}

/** A verdict on salt, sourness or body at first, and on all else that is tasted behind more. */
export function TasteSheet({ batch, append, onClose }: Props) {
  const { spoon, tongue, palate, tasters } = useLists()
  const [more, setMore] = useState(false)
  const [taster, setTaster] = useState(tasters[0]?.key)
  // Whoever cooks is meant where nobody else is named.
  const by = taster === tasters[0]?.key ? {} : { taster }
  const sensed = palate.map(({ key, label, words, at_first }) => ({ of: key, title: `Its ${label}`, words, at_first }))
  const rows = [
    { of: 'salt', title: `Its salt: about ${batch.pot.salt.best.toFixed(2)} %`, words: tongue },
    ...sensed.filter(({ at_first }) => at_first),
    { of: 'body', title: 'Draw a finger across the back of the spoon. Which one is yours?', words: spoon },
    ...(more ? sensed.filter(({ at_first }) => !at_first) : []),
  ] as const
  return (
    <Sheet open onClose={onClose} title="Taste" description="A spoonful on a warm plate, not from the boil.">
      <div className="grid gap-5">
        <Choice label="Who tasted it?" value={taster} onChange={setTaster} options={tasters.map(({ key, label }) => ({ value: key, label }))} />
        {rows.map((row) => (
          <div key={row.of} role="group" aria-label={row.of}>
            <p className="mb-2 font-semibold">{row.title}</p>
            {row.of === 'body' && (
              <div className="mb-2">
                <SpoonRow
                  steps={batch.ladder}
                  now={null}
                  wanted={batch.wanted?.body ?? null}
                  busy={append.isPending}
                  onPick={(step) => append.mutate({ kind: 'tested', of: 'body', step, twice: false }, { onSuccess: onClose })}
                />
              </div>
            )}
            <div className="flex flex-wrap gap-2">
              {row.words.map(({ key: verdict, label }) => (
                <Button
                  key={verdict}
                  className="flex-auto"
                  disabled={append.isPending}
                  onClick={() => append.mutate({ kind: 'tested', of: row.of, verdict, twice: false, ...(row.of !== 'body' && by) }, { onSuccess: onClose })}
                >
                  {label}
                </Button>
              ))}
            </div>
          </div>
        ))}
        {!more && (
          <Button className="justify-self-start" onClick={() => setMore(true)}>
            More: {palate.filter(({ at_first }) => !at_first).map(({ label }) => label).join(', ')}
          </Button>
        )}
        {append.error && <p role="alert" className="font-medium text-heat">{append.error.message}</p>}
      </div>
    </Sheet>
  )
}

/** How warm the sauce is. */
export function SauceProbe(props: Props) {
  return <ProbeSheet {...props} kind="probed" title="Temperature" what="In the middle of the sauce, stirred" />
}

/** How warm the meat is in its middle. */
export function MeatProbe(props: Props) {
  return <ProbeSheet {...props} kind="meat_probed" title="Temperature of the meat" what="In the middle of the thickest piece" />
}

function ProbeSheet({ append, onClose, kind, title, what }: Props & { kind: 'probed' | 'meat_probed'; title: string; what: string }) {
  const eg = useExample()
  const [celsius, setCelsius] = useState('')
  return (
    <Sheet open onClose={onClose} title={title}>
      <form
        className="grid gap-4"
        onSubmit={(event) => {
          event.preventDefault()
          append.mutate({ kind, celsius } as Payload, { onSuccess: onClose })
        }}
      >
        <TextField label={what} placeholder={eg('72 °C', '162 °F')} value={celsius} onChange={setCelsius} error={append.error?.at('celsius') ?? append.error?.message} autoFocus autoComplete="off" />
        <Button type="submit" look="main" disabled={!celsius.trim() || append.isPending}>
          Keep the temperature
        </Button>
      </form>
    </Sheet>
  )
}

/** A remark for the log. */
export function NoteSheet({ batch, append, onClose }: Props) {
  const [kept, setText] = useKept<string>(`note-${batch.id}`)
  const text = kept ?? ''
  return (
    <Sheet open onClose={onClose} title="Note">
      <form
        className="grid gap-4"
        onSubmit={(event) => {
          event.preventDefault()
          append.mutate({ kind: 'noted', text }, { onSuccess: () => { setText(null); onClose() } })
        }}
      >
        <TextField label="What you want to remember" value={text} onChange={setText} error={append.error?.message} autoFocus maxLength={2000} />
        <Button type="submit" look="main" disabled={!text.trim() || append.isPending}>
          Keep it
        </Button>
      </form>
    </Sheet>
  )
}
