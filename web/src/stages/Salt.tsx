import { SaltScale } from '../figures/SaltScale'
import { useBench } from './useBench'

/** The salt of the pot on its scale, with what is liked and where it gets too salty. */
export function Salt({ height }: { height: number }) {
  const { batch } = useBench()
  const { low, best, high } = batch.pot.salt
  return <SaltScale {...{ low, best, high, height }} wanted={batch.wanted?.salt_percent ?? null} ceiling={batch.wanted?.ceiling_percent ?? null} />
}
