/** Scales and pixel positions: the only arithmetic of the page. */

export interface PanGeometry {
  base_length_mm: number
  rim_length_mm: number
  height_mm: number
}

export interface Box {
  x: number
  y: number
  width: number
  height: number
}

/** The value of a line through points, whose `xs` rise; beyond the outermost it stays where they are. */
export function along(xs: readonly number[], ys: readonly number[], x: number): number {
  const right = xs.findIndex((one) => one >= x)
  if (right <= 0) return (right < 0 ? ys.at(-1) : ys[0]) ?? NaN
  const [x0 = 0, x1 = 0, y0 = 0, y1 = 0] = [xs[right - 1], xs[right], ys[right - 1], ys[right]]
  return y0 + ((y1 - y0) * (x - x0)) / (x1 - x0)
}

/** Where millimetres of a pan in section lie in a box of pixels. The base stands on the box's floor. */
export function panScale(pan: PanGeometry, box: Box) {
  const pxPerMm = Math.min(box.width / pan.rim_length_mm, box.height / pan.height_mm)
  const centre = box.x + box.width / 2
  const floor = box.y + box.height
  const halfAt = (depthMm: number) => {
    const share = depthMm / pan.height_mm
    return ((pan.base_length_mm + (pan.rim_length_mm - pan.base_length_mm) * share) / 2) * pxPerMm
  }
  return {
    pxPerMm,
    centre,
    floor,
    rim: floor - pan.height_mm * pxPerMm,
    y: (depthMm: number) => floor - depthMm * pxPerMm,
    depth: (y: number) => Math.min(Math.max((floor - y) / pxPerMm, 0), pan.height_mm),
    left: (depthMm: number) => centre - halfAt(depthMm),
    right: (depthMm: number) => centre + halfAt(depthMm),
  }
}

export type PanScale = ReturnType<typeof panScale>

/** The outline of what stands between two depths in the pan, as an SVG path. */
export function slice(scale: PanScale, fromMm: number, toMm: number): string {
  const corners = [
    [scale.left(fromMm), scale.y(fromMm)],
    [scale.left(toMm), scale.y(toMm)],
    [scale.right(toMm), scale.y(toMm)],
    [scale.right(fromMm), scale.y(fromMm)],
  ]
  return `M${corners.map(([x, y]) => `${x},${y}`).join('L')}Z`
}

/**
 * Push labels apart so that none overlap, keeping their order and staying as near as they can to
 * where they belong.
 */
export function spread(wanted: readonly number[], gap: number, low: number, high: number): number[] {
  const order = wanted.map((_, index) => index).sort((a, b) => (wanted[a] ?? 0) - (wanted[b] ?? 0))
  const placed = order.map((index) => Math.min(Math.max(wanted[index] ?? 0, low), high))
  for (let round = 0; round < 60; round++) {
    let moved = false
    for (let i = 1; i < placed.length; i++) {
      const [above, below] = [placed[i - 1] ?? 0, placed[i] ?? 0]
      const short = gap - (below - above)
      if (short > 0.01) {
        moved = true
        placed[i - 1] = Math.max(above - short / 2, low)
        placed[i] = (placed[i - 1] ?? 0) + gap
      }
    }
    const over = (placed.at(-1) ?? 0) - high
    if (over > 0.01) {
      moved = true
      placed[placed.length - 1] = high
      for (let i = placed.length - 2; i >= 0; i--) {
        placed[i] = Math.min(placed[i] ?? 0, (placed[i + 1] ?? 0) - gap)
      }
    }
    if (!moved) break
  }
  const out: number[] = []
  order.forEach((index, i) => (out[index] = placed[i] ?? 0))
  return out
}

export interface Stretch {
  stage: string
  planned: boolean
  from_ml: number
  to_ml: number
  /** The floating fat among it. */
  from_fat_ml: number
  to_fat_ml: number
}

export interface Placed<S extends Stretch> {
  stretch: S
  x0: number
  x1: number
}

/** How much of the ribbon's length each stage is given. */
const WEIGHTS: Record<string, number> = { strain: 1.1, skim: 1.2, reduce: 2.2, thicken: 1.1, season: 0.9, serve: 1.1 }

export interface Station {
  stage: string
  x0: number
  x1: number
}

/** Every stage a stretch of the width, or an even share of it; what has happened in it first, what is planned after. */
export function layRibbon<S extends Stretch>(
  stages: readonly string[],
  stretches: readonly S[],
  width: number,
  even = false,
): { stations: Station[]; placed: Placed<S>[] } {
  const weight = (stage: string) => (even ? 1 : (WEIGHTS[stage] ?? 1))
  const total = stages.reduce((sum, stage) => sum + weight(stage), 0)
  const stations: Station[] = []
  const placed: Placed<S>[] = []
  let x = 0
  for (const stage of stages) {
    const x1 = x + (weight(stage) / total) * width
    stations.push({ stage, x0: x, x1 })
    const own = stretches.filter((stretch) => stretch.stage === stage)
    own.forEach((stretch, i) => {
      const part = (x1 - x) / own.length
      placed.push({ stretch, x0: x + i * part, x1: x + (i + 1) * part })
    })
    x = x1
  }
  return { stations, placed }
}

/** Where a stretch's surface lies at `x`: the easing of `ribbonEdge`, near enough to stand things on. */
export function surfaceAt({ stretch, x0, x1 }: Placed<Stretch>, x: number, y: (ml: number) => number): number {
  const [s, e] = [x0 + (x1 - x0) * 0.2, x0 + (x1 - x0) * 0.85]
  const t = Math.min(Math.max((x - s) / (e - s), 0), 1)
  const eased = t * t * (3 - 2 * t)
  return y(stretch.from_ml) + (y(stretch.to_ml) - y(stretch.from_ml)) * eased
}

/** A line from one level to another: level, then an ease, then level; without the command that begins it. */
export function eased(x0: number, x1: number, a: number, b: number): string {
  const [s, e] = [x0 + (x1 - x0) * 0.2, x0 + (x1 - x0) * 0.85]
  const middle = (s + e) / 2
  return `${x0},${a}L${s},${a}C${middle},${a} ${middle},${b} ${e},${b}L${x1},${b}`
}

/**
 * The upper edge of the ribbon through its stretches: level, then an ease from one volume to the
 * next, then level. Gaps between stretches are bridged level.
 */
export function ribbonEdge(
  placed: readonly Placed<Stretch>[],
  y: (ml: number) => number,
  of: 'all' | 'liquid' = 'all',
): string {
  const parts: string[] = []
  for (const { stretch, x0, x1 } of placed) {
    const fat = of === 'liquid' ? 1 : 0
    const a = y(stretch.from_ml - fat * stretch.from_fat_ml)
    const b = y(stretch.to_ml - fat * stretch.to_fat_ml)
    parts.push(`${parts.length === 0 ? 'M' : 'L'}${eased(x0, x1, a, b)}`)
  }
  return parts.join('')
}
