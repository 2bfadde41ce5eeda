import { useLists } from '../api/hooks'
import { useBench } from '../stages/useBench'
import { Toggle } from '../ui/Toggle'

/** What is seen, heard and smelt, one tap each: what would say something of this pot, and what was said of it already. */
export function Signs() {
  const { batch, onRecord } = useBench()
  const { signs } = useLists()
  return (
    <div role="group" aria-label="Seen in the pan" className="mt-3 flex flex-wrap items-center gap-1.5">
      <span className="w-full text-quiet">Seen in the pan</span>
      {signs.filter(({ key }) => batch.signs_asked.includes(key) || batch.signs.includes(key)).map(({ key: sign, label }) => (
        <Toggle key={sign} label={label} on={batch.signs.includes(sign)} onTap={() => onRecord({ kind: 'seen', sign })} />
      ))}
    </div>
  )
}
