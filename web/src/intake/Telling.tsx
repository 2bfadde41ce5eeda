import type { Problem } from '../api/client'
import { useLists } from '../api/lists'
import type { Kitchen, Pot } from '../api/types'
import type { Schemas } from '../api/client'
import { Explain } from '../shared/Explain'
import { useExample, useSay } from '../shared/units'
import { Button } from '../ui/Button'
import { Choice } from '../ui/Choice'
import { TextField } from '../ui/TextField'
import { HungPot, type Hung } from '../figures/HungPot'
import { Ask, AskForm, Pick, Wrong } from '../shared/Ask'
import { assumed, type Draft } from './draft'

interface Props {
  draft: Draft
  change: (part: Partial<Draft>) => void
  kitchen: Kitchen
  pot: Pot | undefined
  wrong: Problem | null
}

/** Each has a sentence of its own beside its word. */
export const TELLING_FIELDS = ['value', 'volume', 'measured', 'depth', 'fat', 'fat_mm', 'fat_ml', 'percent', 'salt', 'solids_g'] as const
const placeholders: Record<Draft['method'], [metric: string, us: string]> = { jug: ['1.4 l', '6 cups'], eye: ['a bit over 2 l', 'a bit over 2 qt'], dip: ['53 mm', '2 1/8 in'], scale: ['2620 g', '5 lb 12 oz'] }
const byWord = { jug: 'by jug', eye: 'by eye', dip: 'by dip', scale: 'on the scale' }

function saltWords(draft: Draft, { tastes, stocks }: Schemas['ListsOut']): string | null {
  switch (draft.saltBy) {
    case 'taste':
      return tastes.find(({ key }) => key === draft.verdict)?.label ?? draft.verdict
    case 'meter':
      return draft.percent.trim() ? `${draft.percent} by the meter` : null
    case 'stock':
      return `as ${stocks.find(({ key }) => key === draft.stock)?.label ?? draft.stock}`
    case 'list':
      return 'by the list'
    case 'unsaid':
      return draft.lines.length > 0 ? 'by the list' : null
  }
}

/** What is in the pan: each word hangs on what it is about, and can be tapped. */
export function Telling({ draft, change, kitchen, pot, wrong }: Props) {
  const eg = useExample()
  const say = useSay()
  const lists = useLists()
  const pan = kitchen.pans.find((p) => p.id === draft.panId)
  const amountWrong = wrong?.at('value', 'volume', 'measured', 'depth')
  const fatWrong = wrong?.at('fat', 'fat_mm', 'fat_ml')
  const saltWrong = wrong?.at('percent', 'salt')
  const solidsWrong = wrong?.at('solids_g')
  const listed = draft.lines.length > 0
  const words: (Hung | false)[] = [
    {
      place: 'steam',
      assumed: assumed(draft, 'hot'),
      word: (
        <Pick
          label="Hot or cold"
          value={draft.hot ? 'hot' : 'cold'}
          assumed={assumed(draft, 'hot')}
          options={[
            { value: 'hot', label: 'hot' },
            { value: 'cold', label: 'cold' },
          ]}
          onPick={(hot) => change({ hot: hot === 'hot' })}
        />
      ),
    },
    {
      place: 'fat',
      assumed: !draft.fat.trim(),
      word: (
        <AskForm label="Fat on top" said={draft.fat.trim() ? `${draft.fat.trim()} of fat${draft.method === 'jug' && draft.fatBy === 'mm' ? ` in the ${draft.fatIn || 'jug'}` : ''}` : listed ? 'the fat of the list' : null} unsaid="how much fat?" assumed={!draft.fat.trim()} wrong={Boolean(fatWrong)}>
          <Choice
            label="Fat measured by"
            value={draft.fatBy}
            onChange={(fatBy) => change({ fatBy, fat: '' })}
            options={[
              { value: 'mm', label: 'Thickness' },
              { value: 'ml', label: 'Volume' },
            ]}
          />
          <TextField
            label="Fat on top, if any"
            placeholder={draft.fatBy === 'mm' ? eg('5 mm', '1/4 in') : eg('120 ml', '1/2 cup')}
            value={draft.fat}
            onChange={(fat) => change({ fat })}
            error={fatWrong}
            autoComplete="off"
          />
          {draft.method === 'jug' && draft.fatBy === 'mm' && (
            <Choice
              label="Seen in"
              value={draft.fatIn || 'jug'}
              onChange={(fatIn) => change({ fatIn })}
              options={[
                { value: 'jug', label: 'The jug' },
                { value: 'pan', label: 'The pan' },
              ]}
            />
          )}
        </AskForm>
      ),
    },
    {
      place: 'liquid',
      assumed: !draft.value.trim(),
      word: (
        <AskForm
          label="How much"
          said={draft.value.trim() ? `${draft.value.trim()} ${byWord[draft.method]}` : listed ? 'what the list makes' : null}
          unsaid="how much?"
          assumed={!draft.value.trim()}
          wrong={Boolean(amountWrong)}
        >
          <Choice
            label="Fat and all, by"
            layout="pairs"
            value={draft.method}
            onChange={(method) => change({ method, value: '' })}
            options={(['jug', 'dip', 'scale', 'eye'] as const).map((method) => ({
              value: method,
              label: lists.ways_to_measure.find(({ key }) => key === method)?.label ?? method,
              hint: hint(method, pot, say, pan?.empty_g ?? null),
              disabled: method === 'scale' && !pan?.empty_g,
            }))}
          />
          <Explain of="which">Jug, dip or scale?</Explain>
          <TextField
            label="Measurement"
            placeholder={eg(...placeholders[draft.method])}
            value={draft.value}
            onChange={(value) => change({ value })}
            error={amountWrong}
            autoComplete="off"
          />
          <Choice
            label={`Hot liquid takes ${lists.hot_expansion_percent.toFixed(1)} % more room`}
            value={draft.hot ? 'hot' : 'cold'}
            onChange={(hot) => change({ hot: hot === 'hot' })}
            options={[
              { value: 'hot', label: 'Hot' },
              { value: 'cold', label: 'Cold' },
            ]}
          />
        </AskForm>
      ),
    },
    {
      place: 'salt',
      assumed: draft.saltBy === 'unsaid',
      word: (
        <Ask label="Salt" ink="text-salt" said={saltWords(draft, lists)} unsaid="how salty?" assumed={draft.saltBy === 'unsaid'} wrong={Boolean(saltWrong)}>
          {(close) => (
            <div className="grid gap-4">
              <Choice
                label="It tastes"
                value={draft.saltBy === 'taste' ? draft.verdict : undefined}
                onChange={(verdict) => {
                  change({ saltBy: 'taste', verdict })
                  close()
                }}
                options={lists.tastes.map(({ key, label }) => ({ value: key, label }))}
              />
              <TextField
                label="Or a salt meter shows"
                placeholder="0.6 %"
                value={draft.saltBy === 'meter' ? draft.percent : ''}
                onChange={(percent) => change({ saltBy: percent.trim() ? 'meter' : 'unsaid', percent })}
                error={saltWrong}
                autoComplete="off"
              />
              <Choice
                label="Or go by the stock that went in"
                layout="stack"
                value={draft.saltBy === 'stock' ? draft.stock : undefined}
                onChange={(stock) => {
                  change({ saltBy: 'stock', stock })
                  close()
                }}
                options={lists.stocks.map(({ key, label }) => ({ value: key, label }))}
              />
              {listed && (
                <Button
                  onClick={() => {
                    change({ saltBy: 'list' })
                    close()
                  }}
                >
                  Go by the list alone
                </Button>
              )}
            </div>
          )}
        </Ask>
      ),
    },
    !listed && {
      place: 'body',
      assumed: assumed(draft, 'character'),
      word: (
        <Pick
          label="What it is like"
          value={draft.character}
          assumed={assumed(draft, 'character')}
          options={lists.liquids.map(({ key, label, hint }) => ({ value: key, label, hint }))}
          onPick={(character) => change({ character })}
        />
      ),
    },
    {
      place: 'meat',
      assumed: assumed(draft, 'solids'),
      word: (
        <AskForm label="Meat still in the pan" said={draft.solids.trim() ? `${draft.solids.trim()} of meat` : 'no meat'} assumed={assumed(draft, 'solids')} wrong={Boolean(solidsWrong)}>
          <TextField
            label="Meat or vegetables still in the pan"
            hint="They take up room and weight, and trade salt with the liquid. Leave it empty if they were lifted out."
            placeholder={eg('1.1 kg', '2 1/2 lb')}
            value={draft.solids}
            onChange={(solids) => change({ solids })}
            error={solidsWrong}
            autoComplete="off"
          />
        </AskForm>
      ),
    },
    {
      place: 'pan',
      assumed: assumed(draft, 'panId'),
      word: (
        <Pick
          label="Pan"
          value={draft.panId}
          assumed={assumed(draft, 'panId')}
          unsaid="which pan?"
          options={kitchen.pans.map((p) => ({ value: p.id, label: p.name, hint: `holds ${say(p.capacity)}` }))}
          onPick={(panId) => change({ panId })}
        />
      ),
    },
    {
      place: 'burner',
      assumed: assumed(draft, 'burnerId'),
      word: (
        <Pick
          label="Burner"
          value={draft.burnerId}
          assumed={assumed(draft, 'burnerId')}
          unsaid="which burner?"
          options={kitchen.burners.map((b) => ({ value: b.id, label: b.name }))}
          onPick={(burnerId) => change({ burnerId })}
        />
      ),
    },
  ]
  return (
    <div>
      {pan && (
        <HungPot
          pan={pan}
          depthMm={pot?.depth.value ?? 0}
          fatMm={pot?.fat_depth.value ?? 0}
          tone={pot?.tone ?? 0.2}
          steaming={draft.hot && pot !== undefined}
          meat={draft.solids.trim() !== ''}
          words={words.filter((word) => word !== false)}
          label={pot ? say(pot.depth) : ''}
          onLevel={(mm) => change({ method: 'dip', value: `${mm} mm` })}
        />
      )}
      <Better draft={draft} pot={pot} />
      <Wrong texts={[amountWrong, fatWrong, saltWrong, solidsWrong]} />
    </div>
  )
}

const says = { jug: 'A jug', eye: 'The eye', dip: 'A dip', scale: 'The scale' }

/** Where another way to measure would be clearly better in this pan. */
function Better({ draft, pot }: { draft: Draft; pot: Pot | undefined }) {
  const say = useSay()
  const best = pot?.methods.find((method) => method.best)
  if (!pot || !best || best.method === draft.method || !draft.value.trim()) return null
  return (
    <p className="text-quiet">
      {says[draft.method]} is good to ± {say(pot.liquid_error)} here; {says[best.method].toLowerCase()} to ± {say(best.error)}.
    </p>
  )
}

/** How good a method is for this pan, once there is something in it. */
function hint(method: Draft['method'], pot: Pot | undefined, say: ReturnType<typeof useSay>, emptyG: number | null): string {
  if (method === 'scale' && emptyG === null) return 'weigh the pan empty first'
  if (method === 'eye') return 'a guess'
  const known = pot?.methods.find((m) => m.method === method)
  if (!known) return { jug: 'mind the fat', dip: 'depth in the pan', scale: 'with the pan' }[method]
  return `± ${say(known.error)}${known.best ? ', best here' : ''}`
}
