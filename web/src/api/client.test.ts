import { describe, expect, it } from 'vitest'
import { answer, Problem } from './client'
import { newId } from './id'

const response = (status: number) => new Response(null, { status })

describe('an answer', () => {
  it('is the data of a call that went well', async () => {
    await expect(answer(Promise.resolve({ data: 7, response: response(200) }))).resolves.toBe(7)
  })

  it('is a problem with a sentence for each field', async () => {
    const error = {
      detail: 'Not so.',
      errors: [{ field: 'start.liquid.measured.value', message: 'Too deep.' }],
      answers: [{ label: 'It was misread', says: { gain: 'misread' } }],
    }
    const problem = await answer(Promise.resolve({ error, response: response(422) })).catch((p: unknown) => p)
    expect(problem).toBeInstanceOf(Problem)
    const { status, message, answers } = problem as Problem
    expect([status, message, answers[0]?.says]).toEqual([422, 'Not so.', { gain: 'misread' }])
    expect((problem as Problem).at('value')).toBe('Too deep.')
    expect((problem as Problem).at('volume_ml')).toBeUndefined()
  })

  it('says so when nobody answers', async () => {
    const problem = await answer(Promise.reject(new TypeError('failed'))).catch((p: unknown) => p)
    expect((problem as Problem).status).toBe(0)
    expect((problem as Problem).message).toContain('cannot be reached')
  })

  it('stays a problem when the server says nothing of use', async () => {
    const problem = await answer(Promise.resolve({ response: response(500) })).catch((p: unknown) => p)
    expect((problem as Problem).status).toBe(500)
  })
})

describe('a problem', () => {
  const problem = new Problem(422, 'Two things.', { 'pan.height_mm': 'Too high.', base_width_mm: 'Too wide.' })

  it('has what stands beside no field in sight', () => {
    expect(problem.at('height_mm')).toBe('Too high.')
    expect(problem.rest('height_mm')).toBe('Too wide.')
    expect(problem.rest('height_mm', 'base_width_mm')).toBeUndefined()
  })

  it('is one sentence where it names no field', () => {
    expect(new Problem(409, 'Not now.').rest('name')).toBe('Not now.')
  })
})

describe('an id', () => {
  it('is a UUID of version 4, and another each time', () => {
    const ids = Array.from({ length: 200 }, newId)
    for (const id of ids) expect(id).toMatch(/^[0-9a-f]{8}-[0-9a-f]{4}-4[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/)
    expect(new Set(ids).size).toBe(200)
  })
})
