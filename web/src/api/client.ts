import createClient from 'openapi-fetch'
import type { components, paths } from './schema'

export type Schemas = components['schemas']

/**
 * The version of the events that this page speaks; the server puts older ones in today's words. What waits in the
 * browser keeps the version that it was entered with.
 */
export const EVENTS_VERSION = 11

function cookie(name: string): string {
  const found = document.cookie.split('; ').find((part) => part.startsWith(`${name}=`))
  return found ? decodeURIComponent(found.slice(name.length + 1)) : ''
}

/** Typed from the server's OpenAPI; Django's CSRF token goes with every change. */
export const client = createClient<paths>({ baseUrl: '' })
client.use({
  onRequest({ request }) {
    if (request.method !== 'GET') request.headers.set('X-CSRFToken', cookie('csrftoken'))
    return request
  },
})

/** What the server could not use: a sentence for the whole, and one for each field. */
export class Problem extends Error {
  readonly status: number
  readonly fields: Readonly<Record<string, string>>
  /** What may be answered where it is asked about. */
  readonly answers: Schemas['AnswerTo'][]
  /** How long the server asks to wait. */
  readonly retryAfterMs: number | undefined

  constructor(status: number, detail: string, fields: Record<string, string> = {}, answers: Schemas['AnswerTo'][] = [], retryAfterMs?: number) {
    super(detail)
    this.status = status
    this.fields = fields
    this.answers = answers
    this.retryAfterMs = retryAfterMs
  }

  /** The sentence for a field, by the last part of its dotted name. */
  at(...names: string[]): string | undefined {
    const found = Object.entries(this.fields).find(([path]) => names.includes(path.split('.').at(-1) ?? path))
    return found?.[1]
  }

  /** What stands beside none of these fields: sentences of others, or of the whole where no field is named. */
  rest(...names: string[]): string | undefined {
    const fields = Object.entries(this.fields)
    if (fields.length === 0) return this.message
    const others = fields.filter(([path]) => !names.includes(path.split('.').at(-1) ?? path))
    return others.length > 0 ? others.map(([, sentence]) => sentence).join(' ') : undefined
  }
}

interface Result<T> {
  data?: T
  error?: unknown
  response: Response
}

/** The data of a call, or a thrown `Problem`. */
export async function answer<T>(call: Promise<Result<T>>): Promise<T> {
  let result: Result<T>
  try {
    result = await call
  } catch {
    throw new Problem(0, 'The server cannot be reached. Nothing you entered is lost; try again in a moment.')
  }
  const { data, error, response } = result
  if (response.ok) return data as T
  const body = (error ?? {}) as { detail?: string; errors?: { field: string; message: string }[]; answers?: Schemas['AnswerTo'][] }
  const fields = Object.fromEntries((body.errors ?? []).map(({ field, message }) => [field, message]))
  const wait = Number(response.headers.get('Retry-After'))
  throw new Problem(response.status, body.detail ?? 'Something went wrong on the server.', fields, body.answers, wait > 0 ? wait * 1000 : undefined)
}
