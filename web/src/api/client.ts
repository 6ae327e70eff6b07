import createClient from 'openapi-fetch'
import { told } from './build'
import type { components, paths } from './schema'

export type Schemas = components['schemas']
export type ErrorBody = Schemas['ErrorOut']

/** What the server refused, in its own words, or that it could not be reached (status 0). */
export class ApiError extends Error {
  constructor(
    readonly status: number,
    readonly body: ErrorBody,
  ) {
    super(body.message)
  }

  get unreachable(): boolean {
    return this.status === 0 || this.status >= 500
  }

  /** Asked for again by itself; nothing to show meanwhile. */
  get notSeen(): boolean {
    return this.body.code === NOT_SEEN.code
  }

  /** Nothing is wrong with what was sent; it may be taken later, or by who is signed in then. */
  get passing(): boolean {
    return (
      this.unreachable || this.status === 401 || this.status === 429 || this.body.code === 'other_workshop'
    )
  }
}

const NO_NETWORK: ErrorBody = {
  code: 'no_network',
  message: 'The network is gone. What you enter is kept on this device and sent when it is back.',
  fields: {},
  kept: 'Kept on this device.',
}

export const NOT_SEEN: ErrorBody = {
  code: 'not_seen',
  message:
    'The server does not answer, and this was not opened on this device before: it needs the network. It shows as soon as the server answers.',
  fields: {},
  kept: '',
}

export const NO_ANSWER: ErrorBody = {
  ...NO_NETWORK,
  code: 'unexpected',
  message: 'The server gave no clear answer. Try once more.',
}

let shown = ''
/** Which workshop this page shows, by its number: the server takes nothing of it into another. */
export function show(workshop: number | null): void {
  shown = workshop === null ? '' : String(workshop)
}

const csrf = (): string => /(?:^|; )csrftoken=([^;]+)/.exec(document.cookie)?.[1] ?? ''

/** On a network that is dead but not gone a question would hang for minutes, and take a connection from the entries. */
const QUESTION_MS = 25_000
const ask = (request: Request): Promise<Response> =>
  request.method === 'GET'
    ? globalThis.fetch(request, { signal: AbortSignal.timeout?.(QUESTION_MS) })
    : globalThis.fetch(request)

export const api = createClient<paths>({ baseUrl: globalThis.location.origin, fetch: ask })
api.use({
  onRequest({ request }) {
    if (request.method !== 'GET') request.headers.set('X-CSRFToken', csrf())
    if (shown && !new URL(request.url).pathname.startsWith('/api/session'))
      request.headers.set('X-Workshop', shown)
    return request
  },
  onResponse({ response }) {
    told(response.headers.get('X-Build'))
  },
  onError() {
    return new ApiError(0, NO_NETWORK)
  },
})

interface Answer<T> {
  data?: T
  error?: unknown
  response: Response
}

const isErrorBody = (value: unknown): value is ErrorBody =>
  typeof value === 'object' && value !== null && 'code' in value && 'message' in value

/** The data, or an ApiError. */
export async function unwrap<T>(asked: Promise<Answer<T>>): Promise<T> {
  const { data, error, response } = await asked
  if (error !== undefined || !response.ok) {
    throw new ApiError(response.status, isErrorBody(error) ? error : NO_ANSWER)
  }
  return data as T
}
