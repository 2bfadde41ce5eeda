import type { ReactNode } from 'react'
import { panScale, spread, type PanGeometry, type PanScale } from './geometry'
import { useWidth } from './useSize'
import { Level, Liquid, Wall } from './Vessel'

/** What of a pot a word is about. */
export type Place = 'steam' | 'fat' | 'liquid' | 'salt' | 'body' | 'meat' | 'pan' | 'burner'

export interface Hung {
  place: Place
  /** Nobody has said it: its line is dotted. */
  assumed: boolean
  word: ReactNode
}

interface Props {
  pan: PanGeometry
  depthMm: number
  fatMm: number
  tone: number
  steaming: boolean
  /** There is something solid in it. */
  meat: boolean
  words: readonly Hung[]
  label: string
  onLevel: (depthMm: number) => void
}

const WALL = 7
/** How full an empty pan is taken to be for the lines of its words. */
const EMPTY_TO = 0.6

/** Where in the pot a line begins, in px. */
function anchor(place: Place, scale: PanScale, depthMm: number, fatMm: number): { x: number; y: number } {
  const liquid = Math.max(depthMm - fatMm, 0)
  const inside = (mm: number) => scale.right(mm) - 16
  switch (place) {
    case 'steam':
      return { x: scale.left(depthMm) + (scale.right(depthMm) - scale.left(depthMm)) * 0.48, y: scale.y(depthMm) - 40 }
    case 'fat':
      return { x: inside(depthMm), y: scale.y(depthMm - fatMm / 2) }
    case 'liquid':
      return { x: inside(liquid), y: scale.y(liquid * 0.82) }
    case 'salt':
      return { x: inside(liquid * 0.5) - 26, y: scale.y(liquid * 0.56) }
    case 'body':
      return { x: inside(liquid * 0.3), y: scale.y(liquid * 0.34) }
    case 'meat':
      return { x: inside(0) - 40, y: scale.y(Math.min(liquid, 10) * 0.6) }
    case 'pan':
      return { x: scale.right(0) + WALL, y: scale.floor - 4 }
    case 'burner':
      return { x: scale.right(0) - 20, y: scale.floor + 22 }
  }
}

/** The pan to scale, and around it the words for what is in it and under it, each on a line to what it is about. */
export function HungPot({ pan, depthMm, fatMm, tone, steaming, meat, words, label, onLevel }: Props) {
  const [ref, width] = useWidth<HTMLDivElement>(576)
  const narrow = width < 480
  // A long name takes two lines where there is little room.
  const ROW = width < 320 ? 78 : 56
  const wordX = Math.round(width * (narrow ? 0.44 : 0.56))
  const height = Math.max(words.length * ROW + 8, 300)
  const box = { x: narrow ? 8 : 30, y: 40, width: wordX - (narrow ? 34 : 84), height: height - 150 }
  const fit = panScale(pan, box)
  const tall = pan.height_mm * fit.pxPerMm
  // The pan stands in the middle of its words.
  const scale = panScale(pan, { ...box, y: (height - tall) / 2, height: tall })
  // In an empty pan each hangs where it will be.
  const empty = depthMm <= 0
  const from = words.map(({ place }) => anchor(place, scale, empty ? pan.height_mm * EMPTY_TO : depthMm, fatMm))
  // In the order in which they are told, so that no two lines cross.
  const at = spread(from.map((_, i) => Math.max(...from.slice(0, i + 1).map(({ y }) => y)) + i * 0.01), ROW, ROW / 2, height - ROW / 2)
  const meats = [0.2, 0.42, 0.62]
  return (
    <div ref={ref} className="relative min-w-0" style={{ height }}>
      <svg width={width} height={height} role="group" aria-label={`The pan in section. ${label}`} className="absolute inset-0 block touch-none select-none">
        <Liquid {...{ scale, depthMm, fatMm, tone, steaming }} />
        {meat &&
          meats.map((share) => (
            <ellipse
              key={share}
              cx={scale.left(0) + (scale.right(0) - scale.left(0)) * share}
              cy={scale.floor - Math.min(15, tall * 0.2)}
              rx={Math.min(24, (scale.right(0) - scale.left(0)) * 0.11)}
              ry={Math.min(15, tall * 0.18)}
              fill="#6b3a2a"
              opacity="0.75"
            />
          ))}
        <Wall scale={scale} pan={pan} wall={WALL} />
        <g stroke="var(--heat)" strokeWidth="3" strokeLinecap="round" fill="none">
          {[0.2, 0.35, 0.5, 0.65, 0.8].map((share) => {
            const x = scale.left(0) + (scale.right(0) - scale.left(0)) * share
            return <path key={share} d={`M${x},${scale.floor + 26}q-4,-6 0,-13`} />
          })}
        </g>
        {words.map((one, i) => {
          const [begin, y] = [from[i], at[i]]
          if (!begin || y === undefined) return null
          const bend = Math.max(scale.right(pan.height_mm) + WALL + 6, begin.x + 8)
          return (
            <g key={one.place} stroke="var(--ink)" fill="none">
              <polyline points={`${begin.x},${begin.y} ${bend},${begin.y} ${wordX - 6},${y}`} strokeWidth={one.assumed ? 1.5 : 2} strokeDasharray={one.assumed ? '2 5' : undefined} />
              <circle cx={begin.x} cy={begin.y} r="3.5" fill={empty && one.place !== 'pan' && one.place !== 'burner' ? 'var(--ground)' : 'var(--ink)'} stroke={empty ? 'var(--ink)' : 'var(--ground)'} strokeWidth="1.5" />
            </g>
          )
        })}
        <Level {...{ scale, pan, depthMm, label, onLevel }} />
      </svg>
      {words.map((one, i) => (
        <div key={one.place} className="absolute flex min-w-0 items-center" style={{ left: wordX, top: (at[i] ?? 0) - ROW / 2, width: width - wordX, height: ROW }}>
          {one.word}
        </div>
      ))}
    </div>
  )
}
