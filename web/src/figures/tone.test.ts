import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { FAT_EDGE, sauce } from './tone'

const styles = readFileSync('src/styles.css', 'utf8')

type Rgb = [number, number, number]

/** What the three common deficiencies make of linear red, green and blue (Machado, Oliveira and Fernandes 2009, at their full strength; from memory). */
const EYES: Record<string, [Rgb, Rgb, Rgb]> = {
  usual: [[1, 0, 0], [0, 1, 0], [0, 0, 1]],
  'without red': [[0.152286, 1.052583, -0.204868], [0.114503, 0.786281, 0.099216], [-0.003882, -0.048116, 1.051998]],
  'without green': [[0.367322, 0.860646, -0.227968], [0.280085, 0.672501, 0.047413], [-0.01182, 0.04294, 0.968881]],
  'without blue': [[1.255528, -0.076749, -0.178779], [-0.078411, 0.930809, 0.147602], [0.004733, 0.691367, 0.3039]],
}

/** Relative luminance (WCAG 2.2), to such an eye. */
function luminance(colour: string, eye = 'usual'): number {
  const parts = colour.startsWith('#')
    ? [1, 3, 5].map((i) => parseInt(colour.slice(i, i + 2), 16))
    : (colour.match(/\d+/g) ?? []).map(Number)
  const linear = parts.map((part) => {
    const share = part / 255
    return share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4
  })
  const [r = 0, g = 0, b = 0] = (EYES[eye] ?? []).map((row) => Math.min(Math.max(row.reduce((sum, weight, i) => sum + weight * (linear[i] ?? 0), 0), 0), 1))
  return 0.2126 * r + 0.7152 * g + 0.0722 * b
}

/** Contrast (WCAG 2.2), to such an eye. */
function contrast(one: string, other: string, eye: string): number {
  const [dark = 0, light = 0] = [luminance(one, eye), luminance(other, eye)].sort((a, b) => a - b)
  return (light + 0.05) / (dark + 0.05)
}

/** A colour of the page, in daylight and in a dim kitchen. */
const themed = (name: string) => new RegExp(`--${name}: light-dark\\((#\\w+), (#\\w+)\\)`).exec(styles)?.slice(1) ?? []

describe('the tone of the sauce', () => {
  const tones = Array.from({ length: 41 }, (_, i) => i / 40)

  it('darkens all the way', () => {
    const light = tones.map((tone) => luminance(sauce(tone)))
    for (let i = 1; i < light.length; i++) expect(light[i]).toBeLessThan(light[i - 1] ?? 0)
  })
})

describe.each(Object.keys(EYES))('fat on the sauce, to an eye: %s', (eye) => {
  const tones = Array.from({ length: 41 }, (_, i) => sauce(i / 40))

  it.each(themed('fat'))('%s stands out by itself or by its edge', (fat) => {
    for (const tone of tones) {
      const edged = Math.min(contrast(FAT_EDGE, fat, eye), contrast(FAT_EDGE, tone, eye))
      expect(Math.max(contrast(fat, tone, eye), edged)).toBeGreaterThanOrEqual(3)
    }
  })

  it.each(themed('fat'))('its drops are seen on %s', (fat) => {
    expect(contrast(FAT_EDGE, fat, eye)).toBeGreaterThanOrEqual(3)
  })
})

it('knows the colours of both themes', () => {
  expect(themed('fat')).toHaveLength(2)
})
