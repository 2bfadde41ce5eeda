import { afterEach, expect, test } from 'vitest'
import { clock, day, tellTimeBy } from './clock'
import { momentOf, turnOfDay } from './wall'

afterEach(() => tellTimeBy(''))

test('times are told by the clock of the kitchen', () => {
  tellTimeBy('Asia/Kolkata')
  expect(clock('2026-11-27T14:30:00Z')).toBe('20:00')
  expect(clock('2026-11-27T18:40:00Z')).toBe('00:10')
  expect(day('2026-11-27T18:40:00Z')).toBe('Sat, 28 Nov 2026')
  expect(turnOfDay(Date.parse('2026-11-27T14:30:00Z'))).toBeCloseTo(8 / 12)
})

test('what a field holds is the moment at which that clock shows it, before and after the clocks change', () => {
  tellTimeBy('Europe/Lisbon')
  expect(momentOf('2026-11-27T20:00')).toBe('2026-11-27T20:00:00.000Z')
  expect(momentOf('2026-07-27T20:00')).toBe('2026-07-27T19:00:00.000Z')
  expect(momentOf('2026-10-25T06:00')).toBe('2026-10-25T06:00:00.000Z')
  expect(momentOf('2026-10-25T00:30')).toBe('2026-10-24T23:30:00.000Z')
})
