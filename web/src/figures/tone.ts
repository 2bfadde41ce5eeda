import { along } from './geometry'

/** From pale amber to mahogany, as the sauce concentrates; red, green and blue at tones that run from 0 to 1. */
const TONES = [0, 0.3, 0.55, 0.8, 1]
const RED = [230, 214, 163, 111, 67]
const GREEN = [192, 159, 96, 52, 26]
const BLUE = [127, 82, 44, 25, 15]

/** The colour of a sauce of this tone. */
export function sauce(tone: number): string {
  return `rgb(${[RED, GREEN, BLUE].map((part) => Math.round(along(TONES, part, tone))).join(', ')})`
}

/** The line between fat and sauce, and around the drops of fat: neither tells them apart by its colour in every eye. */
export const FAT_EDGE = '#12161a'
