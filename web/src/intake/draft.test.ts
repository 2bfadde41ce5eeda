import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { Line } from '../api/types'
import type { Schemas } from '../api/client'
import { assumed, changed, counts, missing, previewOf, savedDraft, saveDraft, startOf, withSentence, type Draft } from './draft'

const kept = new Map<string, string>()
vi.stubGlobal('localStorage', {
  getItem: (key: string) => kept.get(key) ?? null,
  setItem: (key: string, value: string) => kept.set(key, value),
  removeItem: (key: string) => kept.delete(key),
})

const line = (part: Partial<Line['line']>): Line => ({
  line: { text: '1 l stock', ingredient: 'beef_stock_own', volume_ml: 1000, spread: 0, use: 'in', poured_off: 0, ...part },
  name: 'beef stock',
  amount: null,
  about: false,
  group: 'stock',
  brings: [],
  note: null,
  problem: null,
  candidates: [],
  doubt: null,
  choices: [],
})
const silent: Schemas['SentenceOut'] = {
  method: null, value: null, hot: null, fat_mm: null, fat_ml: null, fat_in: null, verdict: null, percent: null, stock: null, character: null, unread: [],
}

describe('the draft of a start', () => {
  beforeEach(() => kept.clear())

  const said: Draft = { ...savedDraft('1'), panId: 'pan', burnerId: 'burner', value: '1.4 l', fat: '6 mm', saltBy: 'taste' }

  it('asks for the amount first, then for the salt', () => {
    expect(missing({ ...said, value: '  ' })).toBe('amount')
    expect(missing({ ...said, saltBy: 'unsaid' })).toBe('salt')
    expect(missing({ ...said, saltBy: 'meter', percent: '' })).toBe('salt')
    expect(missing(said)).toBeNull()
    expect(startOf({ ...said, panId: '' })).toBeNull()
  })

  it('fills the pot before the salt is said', () => {
    expect(startOf({ ...said, saltBy: 'unsaid' })).toBeNull()
    expect(previewOf({ ...said, saltBy: 'unsaid' })?.liquid.measured?.value).toBe('1.4 l')
    expect(previewOf({ ...said, value: '' })).toBeNull()
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
        solids_g: 0,
      },
    })
  })

  it('names the fat by the way it was measured, and leaves it out where there is none', () => {
    expect(startOf({ ...said, fatBy: 'ml', fat: '80 ml' })?.liquid).toMatchObject({ fat_ml: '80 ml' })
    expect(startOf({ ...said, fat: ' ' })?.liquid).not.toHaveProperty('fat_mm')
  })

  it('knows four ways to say the salt', () => {
    expect(startOf({ ...said, saltBy: 'meter', percent: '0.6' })?.liquid.salt).toEqual({ by: 'meter', percent: '0.6' })
    expect(startOf({ ...said, saltBy: 'stock' })?.liquid.salt).toEqual({ by: 'stock', stock: 'salted' })
    expect(startOf({ ...said, saltBy: 'list', lines: [line({})] })?.liquid.salt).toEqual({ by: 'list' })
  })

  it('needs neither measure nor taste where a list counts', () => {
    const listed = { ...said, value: '', saltBy: 'unsaid' as const, lines: [line({}), line({ text: 'blorple', ingredient: null })] }
    expect(missing(listed)).toBeNull()
    const start = startOf(listed)
    expect(start?.liquid).not.toHaveProperty('measured')
    expect(start?.liquid.braise).toMatchObject({ strain: 'fine' })
    expect(start?.liquid.braise).not.toHaveProperty('hours')
    expect(start?.liquid.braise?.lines.map((l) => l.text)).toEqual(['1 l stock', 'blorple'])
    expect(missing({ ...listed, lines: [line({ ingredient: null })] })).toBe('amount')
  })

  it('counts a line that says what and how much, and is not left out', () => {
    expect(counts(line({}))).toBe(true)
    expect(counts(line({ use: 'left_out' }))).toBe(false)
    expect(counts(line({ volume_ml: null }))).toBe(false)
  })

  it('takes from a sentence what it says and nothing else', () => {
    const next = withSentence(said, { ...silent, method: 'eye', value: '2100 ml', fat_ml: '80 ml', percent: '0.6 %' })
    expect(next).toMatchObject({ method: 'eye', value: '2100 ml', fatBy: 'ml', fat: '80 ml', saltBy: 'meter', percent: '0.6 %', hot: true })
    expect(withSentence(said, silent)).toEqual(said)
    expect(withSentence(said, { ...silent, hot: false, verdict: 'salty' })).toMatchObject({ hot: false, saltBy: 'taste', verdict: 'salty' })
  })

  it('is kept until it is used, and survives nonsense in the store', () => {
    saveDraft('1', said)
    expect(savedDraft('2').value).toBe('')
    expect(savedDraft('1')).toEqual(said)
    saveDraft('1', null)
    expect(savedDraft('1').value).toBe('')
    kept.set('spissus-start', '{nonsense')
    expect(savedDraft('1').method).toBe('jug')
    kept.set('spissus-start', '{"lines": [{"line": {"text": "1 l stock"}, "name": "stock"}]}')
    expect(savedDraft('1').lines[0]).toMatchObject({ doubt: null, choices: [] })
    kept.set('spissus-start', '{"cooked": {"hours": "2 h"}}')
    expect(savedDraft('1').cooked).toMatchObject({ hours: '2 h', cover: 'tight' })
  })

  it('forgets what the sentence no longer says, and keeps what was set by hand', () => {
    const draft = savedDraft('1')
    const heard = withSentence(draft, { ...silent, method: 'eye', value: '2100 ml', fat_mm: '20 mm', verdict: 'nearly' })
    expect([heard.value, heard.fat, heard.saltBy]).toEqual(['2100 ml', '20 mm', 'taste'])
    const byHand = changed(heard, { fat: '12 mm' })
    const shorter = withSentence(byHand, { ...silent, verdict: 'nearly' })
    expect([shorter.value, shorter.method, shorter.fat, shorter.saltBy]).toEqual(['', 'jug', '12 mm', 'taste'])
    expect(withSentence(shorter, null).saltBy).toBe('unsaid')
  })

  it('takes for granted what nobody has said', () => {
    const draft = savedDraft('1')
    expect(assumed(draft, 'panId')).toBe(true)
    expect(assumed(changed(draft, { panId: 'big' }), 'panId')).toBe(false)
    expect(assumed(withSentence(draft, { ...silent, hot: false }), 'hot')).toBe(false)
    const covered = changed(draft, { cooked: { ...draft.cooked, cover: 'open' } })
    expect([assumed(covered, 'cover'), assumed(covered, 'hours')]).toEqual([false, true])
  })
})
