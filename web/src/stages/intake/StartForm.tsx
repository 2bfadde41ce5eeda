import { useState } from 'react'
import { Link } from 'wouter'
import type { Problem } from '../../api/client'
import { useStartPreview, type Kitchen } from '../../api/hooks'
import { Header } from '../../app/Header'
import { useSay } from '../../app/units'
import { PotSection } from '../../figures/PotSection'
import { Button } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { TextField } from '../../ui/TextField'
import { startOf, type Draft } from './draft'
import { useSettled } from './useSettled'

interface Props {
  title: string
  kitchen: Kitchen
  initial: Draft
  onDraft?: (draft: Draft) => void
  problem: Problem | null
  busy: boolean
  act: string
  onDone: (draft: Draft) => void
}

const placeholders = { jug: '1.4 l, 6 cups, 1 1/2 qt', dip: '53 mm or 2 1/8 in', scale: '2620 g with the pan' }

/** What is in the pan: the pot on the left fills as it is said. */
export function StartForm({ title, kitchen, initial, onDraft, problem, busy, act, onDone }: Props) {
  const [draft, setDraft] = useState(initial)
  const say = useSay()
  const settled = useSettled(draft)
  const preview = useStartPreview(startOf(settled))
  const pan = kitchen.pans.find((p) => p.id === draft.panId)
  const wrong = problem ?? preview.error
  const change = (part: Partial<Draft>) => {
    const next = { ...draft, ...part }
    setDraft(next)
    onDraft?.(next)
  }
  const shown = preview.isError ? undefined : preview.data
  const pot = draft.value.trim() ? shown?.pot : undefined
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
    <>
      <Header title={title} />
      <main className="mx-auto grid max-w-[84rem] grid-cols-[minmax(0,1fr)] gap-x-10 gap-y-6 px-4 pb-32 md:grid-cols-[minmax(20rem,28rem)_1fr] md:px-7">
        <section aria-label="The pot" className="md:sticky md:top-4 md:self-start">
          {pan && (
            <PotSection
              pan={pan}
              depthMm={pot?.depth.value ?? 0}
              fatMm={pot?.fat_depth.value ?? 0}
              tone={pot?.tone ?? 0.2}
              steaming={draft.hot && pot !== undefined}
              marks={pot ? [{ kind: 'now', depthMm: pot.depth.value, label: say(pot.depth) }] : []}
              height={360}
              onLevel={(mm) => change({ method: 'dip', value: `${mm} mm` })}
            />
          )}
          <p className="text-quiet">{pot ? 'Drag the level, or type a measurement.' : 'Drag the level up to where the liquid stands, or type a measurement.'}</p>
          <dl className="mt-4 grid grid-cols-3 gap-3" aria-live="polite">
            <Told name="liquid" value={pot ? say(pot.liquid) : '–'} note={pot ? `± ${say(pot.liquid_error)}` : ''} />
            <Told name="fat" value={pot ? say(pot.fat) : '–'} note={pot && pot.fat.value > 1 ? `${say(pot.fat_depth)} thick` : ''} />
            <Told
              name="salt"
              value={pot ? `${pot.salt.best.toFixed(2)} %` : '–'}
              note={pot ? `${pot.salt.low.toFixed(2)} to ${pot.salt.high.toFixed(2)}` : ''}
            />
          </dl>
          <Button type="submit" form="start" look="main" className="mt-4 w-full" disabled={busy || !startOf(draft)}>
            {act}
          </Button>
        </section>
        <form
          id="start"
          className="grid content-start gap-5"
          onSubmit={(event) => {
            event.preventDefault()
            onDone(draft)
          }}
        >
          <TextField label="What is it?" placeholder="Pork cheek in dry cider" value={draft.name} onChange={(name) => change({ name })} error={problem?.at('name')} maxLength={120} />
          <Choice
            label="In which pan?"
            value={draft.panId}
            onChange={(panId) => change({ panId })}
            options={kitchen.pans.map((p) => ({ value: p.id, label: p.name }))}
          />
          <Choice
            label="On which burner will it boil?"
            value={draft.burnerId}
            onChange={(burnerId) => change({ burnerId })}
            options={kitchen.burners.map((b) => ({ value: b.id, label: b.name }))}
          />
          <div className="grid items-end gap-3 sm:grid-cols-[auto_1fr_auto]">
            <Choice
              label="How much, fat and all, by"
              value={draft.method}
              onChange={(method) => change({ method, value: '' })}
              options={[
                { value: 'jug', label: 'Jug' },
                { value: 'dip', label: 'Dip' },
                { value: 'scale', label: 'Scale', disabled: !pan?.empty_g },
              ]}
            />
            <TextField
              label="Measurement"
              hideLabel
              placeholder={placeholders[draft.method]}
              value={draft.value}
              onChange={(value) => change({ value })}
              required
              autoComplete="off"
            />
            <Choice
              label="Hot or cold"
              hideLabel
              value={draft.hot ? 'hot' : 'cold'}
              onChange={(hot) => change({ hot: hot === 'hot' })}
              options={[
                { value: 'hot', label: 'Hot' },
                { value: 'cold', label: 'Cold' },
              ]}
            />
            <FieldError text={wrong?.at('value', 'volume', 'measured', 'depth')} />
          </div>
          <div className="grid items-end gap-3 sm:grid-cols-[1fr_auto]">
            <TextField
              label="Fat on top, if any"
              placeholder={draft.fatBy === 'mm' ? '4 mm' : '120 ml'}
              value={draft.fat}
              onChange={(fat) => change({ fat })}
              autoComplete="off"
            />
            <Choice
              label="Fat measured by"
              hideLabel
              value={draft.fatBy}
              onChange={(fatBy) => change({ fatBy, fat: '' })}
              options={[
                { value: 'mm', label: 'Thickness' },
                { value: 'ml', label: 'Volume' },
              ]}
            />
            <FieldError text={wrong?.at('fat', 'fat_mm', 'fat_ml')} />
          </div>
          <div className="grid gap-2">
            <Choice
              label="How do you know its salt?"
              value={draft.saltBy}
              onChange={(saltBy) => change({ saltBy })}
              options={[
                { value: 'taste', label: 'I tasted it' },
                { value: 'meter', label: 'Salt meter' },
                { value: 'stock', label: 'By the stock' },
              ]}
            />
            {draft.saltBy === 'taste' && (
              <Choice
                label="It tastes"
                hideLabel
                value={draft.verdict}
                onChange={(verdict) => change({ verdict })}
                options={[
                  { value: 'flat', label: 'flat' },
                  { value: 'nearly', label: 'nearly right' },
                  { value: 'right', label: 'right' },
                  { value: 'salty', label: 'salty' },
                  { value: 'too_salty', label: 'too salty' },
                ]}
              />
            )}
            {draft.saltBy === 'meter' && (
              <TextField
                label="The meter shows"
                hideLabel
                placeholder="0.6 %"
                value={draft.percent}
                onChange={(percent) => change({ percent })}
                error={wrong?.at('percent')}
              />
            )}
            {draft.saltBy === 'stock' && (
              <Choice
                label="The stock was"
                hideLabel
                value={draft.stock}
                onChange={(stock) => change({ stock })}
                options={[
                  { value: 'salted', label: 'salted' },
                  { value: 'reduced_salt', label: 'reduced in salt' },
                  { value: 'low_salt', label: 'low in salt' },
                  { value: 'unsalted', label: 'unsalted' },
                ]}
              />
            )}
          </div>
          <Choice
            label="What is it like?"
            layout="cards"
            value={draft.character}
            onChange={(character) => change({ character })}
            options={[
              { value: 'thin', label: 'Thin stock', hint: 'Lean meat. Hardly sets when cold.' },
              { value: 'gelatin_rich', label: 'Gelatin-rich', hint: 'Cheek, shin, neck, tail. Sets firm.' },
              { value: 'milled', label: 'Tomato or milled', hint: 'Soft vegetables in it. Cloudy.' },
            ]}
          />
          {wrong && Object.keys(wrong.fields).length === 0 && <p role="alert" className="text-heat">{wrong.message}</p>}
        </form>
      </main>
    </>
  )
}

function FieldError({ text }: { text: string | undefined }) {
  if (!text) return null
  return (
    <p role="alert" className="font-medium text-heat sm:col-span-full">
      {text}
    </p>
  )
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
