import { useChilling } from '../api/shelf'
import { Words } from '../shared/units'
import { useBench } from './useBench'

/** Each way to cool it, the one that makes it first. */
export function Chilling({ what }: { what: 'rest' | 'sauce' | 'pot' }) {
  const { batch } = useBench()
  const { data } = useChilling(batch.id, batch.last_seq, what, true)
  return (
    <ul className="grid gap-1">
      {data?.map(({ key, makes, said }) => (
        <li key={key} className={makes === 'too_slow' ? 'text-quiet' : 'font-semibold'}>
          <span aria-hidden="true" className={makes === 'in_time' ? 'text-done' : makes === 'too_slow' ? 'text-heat' : ''}>
            {makes === 'in_time' ? '✓ ' : makes === 'too_slow' ? '✕ ' : '? '}
          </span>
          <Words of={said} />
        </li>
      ))}
    </ul>
  )
}
