import { beforeEach, describe, expect, it, vi } from 'vitest'
import { savedDraft, saveDraft, startOf, type Draft } from './draft'

const kept = new Map<string, string>()
vi.stubGlobal('localStorage', {
  getItem: (key: string) => kept.get(key) ?? null,
  setItem: (key: string, value: string) => kept.set(key, value),
  removeItem: (key: string) => kept.delete(key),
})

describe('the draft of a start', () => {
  beforeEach(() => kept.clear())

  const said: Draft = { ...savedDraft(), panId: 'pan', burnerId: 'burner', value: '1.4 l', fat: '6 mm' }

  it('is no start until there is a measurement', () => {
    expect(startOf({ ...said, value: '  ' })).toBeNull()
    expect(startOf({ ...said, panId: '' })).toBeNull()
    expect(startOf({ ...said, saltBy: 'meter', percent: '' })).toBeNull()
  })

  it('sends what was typed as it was typed', () => {
    expect(startOf(said)).toEqual({
      kind: 'started',
      pan_id: 'pan',
      burner_id: 'burner',
      liquid: {
        measured: { method: 'jug', value: '1.4 l', hot: true },
        fat_mm: '6 mm',
        salt: { by: 'taste', verdict: 'nearly' },
        character: 'gelatin_rich',
      },
    })
  })

  it('names the fat by the way it was measured, and leaves it out where there is none', () => {
    expect(startOf({ ...said, fatBy: 'ml', fat: '80 ml' })?.liquid).toMatchObject({ fat_ml: '80 ml' })
    expect(startOf({ ...said, fat: ' ' })?.liquid).not.toHaveProperty('fat_mm')
  })

  it('knows three ways to say the salt', () => {
    expect(startOf({ ...said, saltBy: 'meter', percent: '0.6' })?.liquid.salt).toEqual({ by: 'meter', percent: '0.6' })
    expect(startOf({ ...said, saltBy: 'stock' })?.liquid.salt).toEqual({ by: 'stock', stock: 'salted' })
  })

  it('is kept until it is used, and survives nonsense in the store', () => {
    saveDraft(said)
    expect(savedDraft()).toEqual(said)
    saveDraft(null)
    expect(savedDraft().value).toBe('')
    kept.set('spissus-start', '{nonsense')
    expect(savedDraft().method).toBe('jug')
  })
})
