import { describe, expect, it } from 'vitest'
import { sauce } from './tone'

/** Relative luminance and contrast, WCAG 2.2. */
function luminance(colour: string): number {
  const parts = colour.startsWith('#')
    ? [1, 3, 5].map((i) => parseInt(colour.slice(i, i + 2), 16))
    : (colour.match(/\d+/g) ?? []).map(Number)
  const [r = 0, g = 0, b = 0] = parts.map((part) => {
    const share = part / 255
    return share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4
  })
  return 0.2126 * r + 0.7152 * g + 0.0722 * b
}

describe('the tone of the sauce', () => {
  const tones = Array.from({ length: 41 }, (_, i) => i / 40)

  it('darkens all the way', () => {
    const light = tones.map((tone) => luminance(sauce(tone)))
    for (let i = 1; i < light.length; i++) expect(light[i]).toBeLessThan(light[i - 1] ?? 0)
  })
})
