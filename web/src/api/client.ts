/**
 * Talks to the server. Paths, bodies and answers have the types of its OpenAPI description (`schema.ts`, made at build time);
 * whatever goes wrong comes back as a `ServerTrouble` with a sentence for people.
 */
import type { paths } from './schema'
import { waitsForWorker } from '../shared/waiting'
import { BASE } from '../shared/base'

type Method = 'get' | 'post' | 'put' | 'delete'
/** The paths that answer to a method. */
export type PathOf<M extends Method> = { [P in keyof paths]: paths[P][M] extends object ? P : never }[keyof paths]
type Json<T> = T extends { content: { 'application/json': infer Value } } ? Value : undefined
/** What a path answers to a method. */
export type AnswerOf<P extends keyof paths, M extends Method> = paths[P][M] extends { responses: { 200: infer Ok } } ? Json<Ok> : never
type BodyOf<P extends keyof paths, M extends Method> = paths[P][M] extends { requestBody: { content: infer Content } }
  ? Content extends { 'application/json': infer Value }
    ? Value
    : FormData
  : undefined
type QueryOf<P extends keyof paths, M extends Method> = paths[P][M] extends { parameters: { query?: infer Query } } ? Query : never

/** What follows a path: a body where one is wanted. */
type Sent<Body, Query> = undefined extends Body ? [body?: Body, asking?: Asking<Query>] : [body: Body, asking?: Asking<Query>]

export interface Asking<Query = undefined> {
  query?: Query
  /** Ends the waiting for an answer nobody wants any more. */
  signal?: AbortSignal
  /** The name under which it can be asked how far this is. */
  work?: string
}

export class ServerTrouble extends Error {
  constructor(
    public readonly status: number,
    message: string,
    public readonly body: Record<string, unknown> = {},
  ) {
    super(message)
  }
}

let csrf = ''
let onEnd = (): void => {}
export function useToken(token: string): void {
  csrf = token
}
/** What is done when the server says that the session has ended. */
export function whenSessionEnds(act: () => void): void {
  onEnd = act
}

/** Paths that are asked to find out whether there is a session. */
const DOORS = ['/me', '/sign-in']
/** What may have to wait for its turn. */
const DONE_BY_WORKERS = /\/(spec|review)\/|\/board/
/** The server is starting again, or something stands between. */
const PASSING = [0, 502, 503, 504]
/** Waits before a question is asked again, in ms. Only questions: what changes something is never sent twice. */
const AGAIN = [300, 1200]

async function troubleOf(response: Response): Promise<ServerTrouble> {
  const text = await response.text()
  let body: Record<string, unknown> = {}
  try {
    body = JSON.parse(text)
  } catch {
    body = {} // an answer that is not ours, such as a proxy's page
  }
  const known = typeof body.detail === 'string' ? body.detail : ''
  return new ServerTrouble(response.status, known || 'the server could not take this; look at what was typed and try again', body)
}

async function once(method: Method, path: string, body: unknown, { signal, work }: Asking<unknown>): Promise<Response> {
  const headers: Record<string, string> = { 'X-Csrf': csrf, ...(work ? { 'X-Work': work } : {}) }
  let payload: BodyInit | undefined
  if (body instanceof FormData) payload = body
  else if (body !== undefined) {
    headers['Content-Type'] = 'application/json'
    payload = JSON.stringify(body)
  }
  let response: Response
  const ended = DONE_BY_WORKERS.test(path) ? waitsForWorker() : undefined
  try {
    response = await fetch(`${BASE}/api${path}`, { method: method.toUpperCase(), headers, body: payload, signal })
  } catch (error) {
    if (signal?.aborted) throw error
    throw new ServerTrouble(0, 'the server does not answer; is it running?')
  } finally {
    ended?.()
  }
  if (response.ok) return response
  if (response.status === 401 && !DOORS.includes(path)) onEnd()
  throw await troubleOf(response)
}

async function request(method: Method, path: string, body: unknown, asking: Asking<unknown> = {}): Promise<Response> {
  const full = path + written(asking.query)
  for (const wait of method === 'get' ? AGAIN : []) {
    try {
      return await once(method, full, body, asking)
    } catch (error) {
      if (!(error instanceof ServerTrouble) || !PASSING.includes(error.status)) throw error
      await new Promise((resolve) => window.setTimeout(resolve, wait))
    }
  }
  return once(method, full, body, asking)
}

/** A query as it stands behind a path; lists name each of their items. */
export function written(query: unknown): string {
  const found = new URLSearchParams()
  for (const [name, value] of Object.entries(query ?? {}))
    for (const item of Array.isArray(value) ? value : [value]) if (item !== undefined && item !== null) found.append(name, String(item))
  return found.size ? `?${found}` : ''
}

export async function get<P extends PathOf<'get'>>(path: P, asking?: Asking<QueryOf<P, 'get'>>): Promise<AnswerOf<P, 'get'>> {
  return (await request('get', path, undefined, asking)).json()
}
export async function getBytes(path: PathOf<'get'>, asking?: Asking): Promise<ArrayBuffer> {
  return (await request('get', path, undefined, asking)).arrayBuffer()
}
export async function post<P extends PathOf<'post'>>(
  path: P,
  ...[body, asking]: Sent<BodyOf<P, 'post'>, QueryOf<P, 'post'>>
): Promise<AnswerOf<P, 'post'>> {
  return (await request('post', path, body ?? {}, asking)).json()
}
export async function put<P extends PathOf<'put'>>(path: P, body: BodyOf<P, 'put'>): Promise<AnswerOf<P, 'put'>> {
  return (await request('put', path, body)).json()
}
export async function remove(path: PathOf<'delete'>): Promise<void> {
  await request('delete', path, undefined)
}
export function sentence(error: unknown): string {
  return error instanceof Error ? error.message : String(error)
}
