import { Suspense, useState } from 'react'
import { SkewerLink } from '../shared/SkewerLink'
import { useSay, Words } from '../shared/units'
import { Button } from '../ui/Button'
import { part } from '../ui/part'
import { Unfold } from '../ui/Unfold'
import { Figure, reasonOf } from '../shared/Figure'
import { ByTheList } from '../shared/ByTheList'
import { useBench } from './useBench'

const DrawSheet = part(() => import('./DrawSheet'))
const SolidsSheet = part(() => import('./SolidsSheet'))

const methods = { jug: 'a jug', eye: 'the eye', dip: 'a dip', scale: 'the scale' }

/** What is in the pot, with the arithmetic of every figure; and what else may leave it or stay in it. */
export default function StrainPanel() {
  const { batch, onOpen, onRecord } = useBench()
  const say = useSay()
  const { pot } = batch
  const [sheet, setSheet] = useState<'draw' | 'solids' | null>(null)
  const reason = (key: string) => reasonOf(pot.reasons, key)
  return (
    <div className="grid gap-6">
      <div className="grid gap-x-6 gap-y-4 grid-cols-2 sm:grid-cols-[repeat(4,auto)] sm:justify-between">
        <Figure label="liquid" explains={['which', 'Jug, dip or scale?']} value={say(pot.liquid)} note={`± ${say(pot.liquid_error)}`} reason={reason('liquid')} />
        <Figure
          label="salt"
          explains={['salt', 'Salt in per cent?']}
          tone="text-salt"
          value={`${pot.salt.best.toFixed(2)} %`}
          note={`likely ${pot.salt.low.toFixed(2)} to ${pot.salt.high.toFixed(2)} %`}
          reason={reason('salt')}
        />
        <Figure label="body" value={pot.body.everyday} note={pot.body.does} explains={['body', 'What is body?']} reason={reason('body')} />
        <Figure label="taste" explains={['strength', 'What is strength?']} value={pot.taste} note={say(pot.times_strained)} reason={reason('strength')} />
      </div>
      <div className="flex flex-wrap gap-2">
        <Button onClick={() => onOpen('correct')}>Correct the start</Button>
        {!batch.finished && <Button onClick={() => setSheet('draw')}>Draw off a part</Button>}
        {!batch.finished && <Button onClick={() => setSheet('solids')}>{pot.solids ? 'Meat is out, or less' : 'Meat is in the pan'}</Button>}
        <SkewerLink path={`/api/v1/batches/${batch.id}/files/skewer`} />
      </div>
      {pot.solids && <p>{say(pot.solids)} of meat or vegetables stand in the liquid: they count in depth and weight, and trade salt with it.</p>}
      {pot.kept && (
        <p className="flex flex-wrap items-center gap-3">
          {say(pot.kept)} of liquid stands aside, on the meat or by itself.
          <Button onClick={() => onRecord({ kind: 'returned' })}>Pour it back in</Button>
        </p>
      )}
      <Unfold label="" summary={<span className="inline-flex min-h-11 items-center text-lg font-semibold underline decoration-dotted">What is in it</span>}>
        <ul className="grid gap-x-8 text-base text-ink sm:grid-cols-2">
          {pot.contents.map((row) => (
            <li key={row.name} className="border-b border-line py-1">
              <Unfold
                label="how it comes about"
                summary={
                  <span className="flex min-h-11 items-center justify-between gap-3">
                    <span>{row.name}</span>
                    <span>
                      <span className="font-bold">{say(row.mass)}</span>
                      <span className="ml-2 inline-block w-20 text-right whitespace-nowrap text-quiet">{row.percent.toFixed(2)} %</span>
                    </span>
                  </span>
                }
              >
                <Words of={row.how} />
              </Unfold>
            </li>
          ))}
        </ul>
      </Unfold>
      {batch.estimated && <ByTheList estimated={batch.estimated} doubt={batch.doubt} />}
      <div>
        <h2 className="mb-2 text-lg">Measuring this pot</h2>
        <ul className="flex flex-wrap gap-x-8 gap-y-2">
          {pot.methods.map((method) => (
            <li key={method.method} className={method.usable ? '' : 'text-quiet line-through'}>
              <span className={method.best ? 'font-bold text-done' : ''}>{methods[method.method]}</span>: ± {say(method.error)}
              {method.best && <span className="text-done">, best here</span>}
            </li>
          ))}
        </ul>
      </div>
      <Suspense>
        {sheet === 'draw' && <DrawSheet onClose={() => setSheet(null)} />}
        {sheet === 'solids' && <SolidsSheet onClose={() => setSheet(null)} />}
      </Suspense>
    </div>
  )
}
