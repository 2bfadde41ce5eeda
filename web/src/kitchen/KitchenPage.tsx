import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { answer, client, type Problem, type Schemas } from '../api/client'
import { keys } from '../api/keys'
import { useKitchen } from '../api/kitchens'
import { useLists } from '../api/lists'
import { useRights } from '../api/rights'
import { Header } from '../shared/Header'
import { SkewerLink } from '../shared/SkewerLink'
import { useExample, useSay } from '../shared/units'
import { panScale } from '../figures/geometry'
import { Button } from '../ui/Button'
import { Choice } from '../ui/Choice'
import { Sheet } from '../ui/Sheet'
import { TextField } from '../ui/TextField'
import { Brigade } from './Brigade'
import { CalibrateSheet } from './CalibrateSheet'
import { Devices } from './Devices'
import { Learned } from './Learned'
import { Larder } from './Larder'
import { Mixtures } from './Mixtures'
import { TakeAway } from './TakeAway'
import { WhereItIs } from './WhereItIs'
import { Rest } from '../shared/Rest'

type Pan = Schemas['PanOut']
type Burner = Schemas['BurnerOut']

/** Pans, burners and the larder: what the kitchen measures in and cooks with. */
export function KitchenPage() {
  const kitchen = useKitchen()
  const say = useSay()
  const queries = useQueryClient()
  const [editing, setEditing] = useState<Pan | 'new' | null>(null)
  const [calibrating, setCalibrating] = useState<Pan | null>(null)
  const [burner, setBurner] = useState<Burner | 'new' | null>(null)
  const remove = useMutation<unknown, Problem, string>({
    mutationFn: (id) => answer(client.DELETE('/api/v1/pans/{pan_id}', { params: { path: { pan_id: id } } })),
    onSuccess: () => queries.invalidateQueries({ queryKey: keys.kitchen }),
  })
  const pans = kitchen.data?.pans ?? []
  const widest = Math.max(...pans.map((pan) => pan.rim_length_mm), 1)
  const { arranges: mayChange, owns } = useRights()
  return (
    <>
      <Header title={kitchen.data?.name ?? 'Kitchen'}>
        {mayChange && (
          <Button look="main" onClick={() => setEditing('new')}>
            Add a pan
          </Button>
        )}
      </Header>
      <main className="mx-auto max-w-6xl px-4 pb-16 md:px-7">
        <h2 className="mt-4 mb-1 text-xl">Pans</h2>
        <p className="mb-4 text-quiet">Measured inside, drawn to one scale. Weighed empty, a scale can tell what is left.</p>
        <ul className="grid gap-4 sm:grid-cols-2 lg:grid-cols-3">
          {pans.map((pan) => (
            <li key={pan.id} className="flex flex-col rounded-2xl border border-line bg-panel p-4">
              <PanDrawing pan={pan} widest={widest} />
              <h3 className="mt-3 text-lg">{pan.name}</h3>
              <p className="mb-3 text-quiet">
                {say(pan.width)} wide, {say(pan.height)} deep · holds {say(pan.capacity)}
                <br />
                {pan.empty ? `weighs ${say(pan.empty)} empty` : 'never weighed'} · a dip is good to ±&nbsp;{say(pan.dip_error)}
              </p>
              {mayChange && (
                <div className="mt-auto flex flex-wrap gap-2">
                  <SkewerLink path={`/api/v1/pans/${pan.id}/skewer`} of={pan.name} />
                  <Button onClick={() => setCalibrating(pan)}>
                    <span>
                      Calibrate<span className="sr-only"> {pan.name}</span>
                    </span>
                  </Button>
                  <Button onClick={() => setEditing(pan)}>
                    <span>
                      Change<span className="sr-only"> {pan.name}</span>
                    </span>
                  </Button>
                  <Button onClick={() => remove.mutate(pan.id)}>
                    <span>
                      Put away<span className="sr-only"> {pan.name}</span>
                    </span>
                  </Button>
                </div>
              )}
            </li>
          ))}
        </ul>
        {kitchen.isSuccess && pans.length === 0 && (
          <p className="text-lg">No pans yet. Add the one you reduce in: a ruler and a scale are all it takes.</p>
        )}
        <div className="mt-10 mb-4 flex flex-wrap items-end justify-between gap-3">
          <div>
            <h2 className="mb-1 text-xl">Burners</h2>
            <p className="text-quiet">Power that reaches the liquid, and its steam at a full boil.</p>
          </div>
          {mayChange && <Button onClick={() => setBurner('new')}>Add a burner</Button>}
        </div>
        <ul className="grid gap-3 sm:grid-cols-2 lg:grid-cols-4">
          {kitchen.data?.burners.map((burner) => (
            <li key={burner.id} className="rounded-2xl border border-line bg-panel p-4">
              <p className="font-bold">{burner.name}</p>
              <p className="text-quiet">
                {burner.net_kw} kW · {Math.round(burner.steam_g_min)} g of steam a minute
              </p>
              {mayChange && (
                <Button className="mt-3" onClick={() => setBurner(burner)}>
                  <span>
                    Change<span className="sr-only"> {burner.name}</span>
                  </span>
                </Button>
              )}
            </li>
          ))}
        </ul>
        {kitchen.data && <WhereItIs kitchen={kitchen.data} mayChange={mayChange} />}
        {kitchen.data && <Learned kitchen={kitchen.data} mayChange={mayChange} />}
        <Larder mayChange={mayChange} />
        <Mixtures mayChange={mayChange} />
        <Devices mayChange={mayChange} />
        <Brigade />
        <TakeAway owns={owns} />
      </main>
      {burner && <BurnerSheet burner={burner === 'new' ? null : burner} onClose={() => setBurner(null)} />}
      {calibrating && <CalibrateSheet pan={calibrating} onClose={() => setCalibrating(null)} />}
      {editing && <PanSheet pan={editing === 'new' ? null : editing} onClose={() => setEditing(null)} />}
    </>
  )
}

function PanDrawing({ pan, widest }: { pan: Pan; widest: number }) {
  const [width, height] = [300, 110]
  const own = (pan.rim_length_mm / widest) * width
  const scale = panScale(pan, { x: 0, y: 0, width: own, height: 1e6 })
  const s = { ...scale, floor: height - 6, rim: height - 6 - pan.height_mm * scale.pxPerMm }
  return (
    <svg viewBox={`0 0 ${width + 20} ${height}`} role="img" aria-label={`${pan.name} in section`} className="h-28 w-full" preserveAspectRatio="xMinYMax meet">
      <path
        transform="translate(10 0)"
        d={`M${s.left(pan.height_mm)},${s.rim}L${s.left(0)},${s.floor}H${s.right(0)}L${s.right(pan.height_mm)},${s.rim}`}
        fill="none"
        stroke="var(--steel)"
        strokeWidth="6"
        strokeLinejoin="round"
        strokeLinecap="round"
      />
    </svg>
  )
}

function BurnerSheet({ burner, onClose }: { burner: Burner | null; onClose: () => void }) {
  const queries = useQueryClient()
  const [name, setName] = useState(burner?.name ?? '')
  const { steam_g_min_per_kw: steam } = useLists()
  const [power, setPower] = useState(burner ? String(burner.net_kw) : '')
  const save = useMutation<unknown, Problem>({
    mutationFn: () => {
      const body = { name, net_kw: power }
      return burner
        ? answer(client.PUT('/api/v1/burners/{burner_id}', { params: { path: { burner_id: burner.id } }, body }))
        : answer(client.POST('/api/v1/burners', { body }))
    },
    onSuccess: async () => {
      await queries.invalidateQueries({ queryKey: keys.kitchen })
      onClose()
    },
  })
  return (
    <Sheet
      open
      onClose={onClose}
      title={burner ? `Change ${burner.name}` : 'A burner'}
      description={`What counts is the power that reaches the liquid, about half of what a gas burner is sold for. To find it, boil water for ten minutes on the scale: ${Math.round(steam)} g of steam a minute is 1 kW.`}
    >
      <form
        className="grid gap-3"
        onSubmit={(event) => {
          event.preventDefault()
          save.mutate()
        }}
      >
        <TextField label="What you call it, with its setting" value={name} onChange={setName} error={save.error?.at('name')} required />
        <TextField label="Power into the liquid, kW" inputMode="decimal" value={power} onChange={setPower} error={save.error?.at('net_kw')} required />
        <Button type="submit" look="main" disabled={save.isPending}>
          Keep it
        </Button>
      </form>
    </Sheet>
  )
}

interface Draft {
  name: string
  shape: Pan['shape']
  base: string
  baseWidth: string
  rim: string
  rimWidth: string
  height: string
  empty: string
}

function PanSheet({ pan, onClose }: { pan: Pan | null; onClose: () => void }) {
  const eg = useExample()
  const queries = useQueryClient()
  const mm = (value: number | undefined) => (value === undefined ? '' : `${value} mm`)
  const [draft, setDraft] = useState<Draft>({
    name: pan?.name ?? '',
    shape: pan?.shape ?? 'round',
    base: mm(pan?.base_length_mm),
    baseWidth: mm(pan?.base_width_mm),
    rim: mm(pan?.rim_length_mm),
    rimWidth: mm(pan?.rim_width_mm),
    height: mm(pan?.height_mm),
    empty: pan?.empty_g ? `${pan.empty_g} g` : '',
  })
  const round = draft.shape === 'round'
  const rim = draft.rim || draft.base
  const body: Schemas['Pan'] = {
    name: draft.name,
    shape: draft.shape,
    base_length_mm: draft.base,
    base_width_mm: round ? draft.base : draft.baseWidth,
    rim_length_mm: rim,
    rim_width_mm: round ? rim : draft.rimWidth || draft.baseWidth,
    height_mm: draft.height,
    empty_g: draft.empty || null,
  }
  const save = useMutation<unknown, Problem>({
    mutationFn: () =>
      pan
        ? answer(client.PUT('/api/v1/pans/{pan_id}', { params: { path: { pan_id: pan.id } }, body }))
        : answer(client.POST('/api/v1/pans', { body })),
    onSuccess: async () => {
      await queries.invalidateQueries({ queryKey: keys.kitchen })
      onClose()
    },
  })
  const set = (field: keyof Draft) => (value: string) => setDraft({ ...draft, [field]: value })
  return (
    <Sheet open onClose={onClose} title={pan ? `Change ${pan.name}` : 'A pan'} description="Measure inside, from wall to wall.">
      <form
        className="grid gap-3"
        onSubmit={(event) => {
          event.preventDefault()
          save.mutate()
        }}
      >
        <TextField label="What you call it" value={draft.name} onChange={set('name')} error={save.error?.at('name')} required />
        <Choice
          label="Shape from above"
          value={draft.shape}
          onChange={(shape) => setDraft({ ...draft, shape })}
          options={[
            { value: 'round', label: 'Round' },
            { value: 'oval', label: 'Oval' },
            { value: 'rectangular', label: 'Rectangular' },
          ]}
        />
        <div className="grid grid-cols-2 gap-3">
          <TextField label={round ? 'Width of the base' : 'Length of the base'} placeholder={eg('24 cm', '9 1/2 in')} value={draft.base} onChange={set('base')} error={save.error?.at('base_length_mm')} required />
          {!round && <TextField label="Width of the base" placeholder={eg('18 cm', '7 in')} value={draft.baseWidth} onChange={set('baseWidth')} error={save.error?.at('base_width_mm')} required />}
          <TextField label={round ? 'Width at the rim' : 'Length at the rim'} placeholder={eg('28 cm', '11 in')} hint="Empty: as the base." value={draft.rim} onChange={set('rim')} error={save.error?.at('rim_length_mm')} />
          {!round && <TextField label="Width at the rim" placeholder={eg('28 cm', '11 in')} hint="Empty: as the base." value={draft.rimWidth} onChange={set('rimWidth')} error={save.error?.at('rim_width_mm')} />}
          <TextField label="Depth" placeholder={eg('12 cm', '4 3/4 in')} value={draft.height} onChange={set('height')} error={save.error?.at('height_mm')} required />
          <TextField label="Empty weight" placeholder={eg('1680 g', '3 lb 11 oz')} value={draft.empty} onChange={set('empty')} error={save.error?.at('empty_g')} hint="Without its lid" />
        </div>
        <Rest problem={save.error} beside={['name', 'base_length_mm', 'rim_length_mm', 'height_mm', 'empty_g', ...(round ? [] : ['base_width_mm', 'rim_width_mm'])]} />
        <Button type="submit" look="main" disabled={save.isPending}>
          Keep it
        </Button>
      </form>
    </Sheet>
  )
}
