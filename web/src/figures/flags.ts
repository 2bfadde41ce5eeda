/** Where flags stand on poles, so that none hides another. */

export interface Wish {
  /** Where its pole stands. */
  x: number
  /** How wide it is. */
  width: number
}

export interface Flag {
  left: number
  /** The upper edge. */
  top: number
}

/**
 * Place a flag for each pole, as low as it can hang above `ground` (the height of what lies below, at an x) without
 * touching another. A flag flies to the right of its pole, or to the left where it hangs lower there; where there is
 * no room, it is pushed back. From the right to the left: the ground falls to the right.
 */
export function layFlags(wishes: readonly Wish[], height: number, width: number, ground: (x: number) => number, gap = 3): Flag[] {
  const order = wishes.map((_, index) => index).sort((a, b) => (wishes[b]?.x ?? 0) - (wishes[a]?.x ?? 0))
  const placed: (Flag & { right: number })[] = []
  const out: Flag[] = []
  for (const index of order) {
    const wish = wishes[index]
    if (!wish) continue
    const hung = [wish.x - 4, wish.x - wish.width + 4].map((wanted) => {
      const left = Math.max(Math.min(wanted, width - wish.width), 0)
      const right = left + wish.width
      const over = placed.filter((other) => other.left < right + gap && left < other.right + gap).sort((a, b) => b.top - a.top)
      // The ground is highest under the left edge, or under the pole.
      let top = Math.min(ground(left), ground(wish.x)) - 2 * gap - height
      for (const other of over) if (top < other.top + height + gap && other.top < top + height + gap) top = other.top - gap - height
      return { left, right, top }
    })
    const best = hung[1] && hung[0] && hung[1].top > hung[0].top ? hung[1] : hung[0]
    if (!best) continue
    placed.push(best)
    out[index] = { left: best.left, top: best.top }
  }
  return out
}
