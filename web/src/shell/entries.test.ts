import { describe, expect, it } from 'vitest'
import { described, figures, withFigure } from './entries'

const reading = { kind: 'read', measured: { method: 'dip', value: '412 mm', hot: true }, gain: null } as const

const kinds = ['read', 'noted', 'rejoined'].map((kind, i) => ({ kind, called: ['Reading', 'Note', 'Poured together'][i] ?? '', beside: false }))

describe('an entry that was not taken', () => {
  it('is told apart by its kind and its figures', () => {
    expect(described(reading, kinds)).toBe('Reading 412 mm')
    expect(described({ kind: 'noted', text: 'orange peel' }, kinds)).toBe('Note orange peel')
    expect(described({ kind: 'rejoined' }, kinds)).toBe('Poured together')
    expect(described({ kind: 'rejoined' }, [])).toBe('rejoined')
  })

  it('is mended figure by figure, wherever it stands', () => {
    expect(figures(reading)).toEqual([{ path: ['measured', 'value'], label: 'Reading', value: '412 mm' }])
    expect(withFigure(reading, ['measured', 'value'], '41 mm')).toEqual({ ...reading, measured: { ...reading.measured, value: '41 mm' } })
    expect(reading.measured.value).toBe('412 mm')
  })
})
