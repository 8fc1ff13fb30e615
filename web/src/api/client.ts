/** Talks to the server. Whatever goes wrong comes back as a `ServerTrouble` with a sentence for people. */
export class ServerTrouble extends Error {
  constructor(public readonly status: number, message: string, public readonly body: Record<string, unknown> = {}) {
    super(message)
  }
}

let csrf = ''
export function useToken(token: string): void {
  csrf = token
}

async function answerOf(response: Response): Promise<Response> {
  if (response.ok) return response
  let body: Record<string, unknown> = {}
  try {
    body = await response.json()
  } catch {
    body = {}
  }
  const detail = body.detail
  const text = typeof detail === 'string' ? detail : 'the server could not take this; look at what was typed and try again'
  throw new ServerTrouble(response.status, text, body)
}

async function request(method: string, path: string, body?: unknown): Promise<Response> {
  const headers: Record<string, string> = { 'X-Csrf': csrf }
  let payload: BodyInit | undefined
  if (body instanceof FormData) payload = body
  else if (body !== undefined) {
    headers['Content-Type'] = 'application/json'
    payload = JSON.stringify(body)
  }
  try {
    return await answerOf(await fetch(`/api${path}`, { method, headers, body: payload }))
  } catch (error) {
    if (error instanceof ServerTrouble) throw error
    throw new ServerTrouble(0, 'the server does not answer; is it running?')
  }
}

export async function get<T>(path: string): Promise<T> {
  return (await request('GET', path)).json()
}
export async function getBytes(path: string): Promise<ArrayBuffer> {
  return (await request('GET', path)).arrayBuffer()
}
export async function post<T>(path: string, body?: unknown): Promise<T> {
  return (await request('POST', path, body ?? {})).json()
}
export async function put<T>(path: string, body: unknown): Promise<T> {
  return (await request('PUT', path, body)).json()
}
export async function remove(path: string): Promise<void> {
  await request('DELETE', path)
}
export function sentence(error: unknown): string {
  return error instanceof Error ? error.message : String(error)
}
