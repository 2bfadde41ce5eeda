import { panScale, type PanGeometry } from './geometry'
import { Liquid, Wall } from './Vessel'

interface Props {
  pan: PanGeometry
  depthMm: number
  fatMm: number
  tone: number
  stop: { mm: number; label: string } | null
  onHeat: boolean
  width: number
  height: number
}

/** A pot of many: its pan to scale, its level, and the mark to stop at. */
export function SmallPot({ pan, depthMm, fatMm, tone, stop, onHeat, width, height }: Props) {
  const below = 20
  const scale = panScale(pan, { x: 26, y: 12, width: width - 36, height: height - 12 - below })
  return (
    <svg width={width} height={height} aria-hidden="true" className="block shrink-0">
      <Liquid {...{ scale, depthMm, fatMm, tone }} steaming={onHeat && height > 150} />
      {stop && (
        <>
          <line x1={scale.left(stop.mm)} x2={scale.right(stop.mm)} y1={scale.y(stop.mm)} y2={scale.y(stop.mm)} stroke="#fffdf8" strokeWidth="6" />
          <line x1={scale.left(stop.mm)} x2={scale.right(stop.mm)} y1={scale.y(stop.mm)} y2={scale.y(stop.mm)} stroke="var(--done)" strokeWidth="3" />
        </>
      )}
      <Wall scale={scale} pan={pan} wall={5} />
      {onHeat && (
        <g stroke="var(--heat)" strokeWidth="3" strokeLinecap="round" fill="none">
          {[0.2, 0.4, 0.6, 0.8].map((share) => {
            const x = scale.left(0) + (scale.right(0) - scale.left(0)) * share
            return <path key={share} d={`M${x},${scale.floor + 18}q-4,-5 0,-10`} />
          })}
        </g>
      )}
    </svg>
  )
}
