import type { Answer, Method, Sent } from './addresses'
import { Problem, readProblem } from './Problem'
import { rememberOwn } from './own'
import { seenAs } from './seeAs'
import type { Session } from './types'
import { t } from './words'

const pathname = typeof location === 'undefined' ? '' : location.pathname

/** Which organisation the address is about, as its beginning: "/at/pinewick"; empty where it does not say. */
export const at = /^\/at\/[^/]+/.exec(pathname)?.[0] ?? ''

/** An address of the API, for links, pictures and frames. */
export const apiAddress = (path: string) => `${at}/api${path}`

/** The same of what is to be got as it is looked at. */
export const asSeen = (path: string) => apiAddress(lookedAt(path))

let antiforgeryToken = ''

export function rememberToken(session: Session): Session {
  antiforgeryToken = session.antiforgeryToken
  return session
}

/** What is said with every question; a change shows that it comes from here. */
export function askedWith(method: Method): Record<string, string> {
  return method === 'GET' ? { Accept: 'application/json' } : { Accept: 'application/json', 'X-Valtro-Token': antiforgeryToken }
}

/** Asks the API; which addresses there are, what is sent and what comes back is as its OpenAPI document says. */
export async function call<M extends Method, Address extends string>(
  method: M,
  path: Address,
  ...[body, { signal, once } = {}]: Sent<M, Address>
): Promise<Answer<M, Address>> {
  const headers = askedWith(method)
  if (body !== undefined) headers['Content-Type'] = 'application/json'
  if (once) headers['Idempotency-Key'] = once
  let response: Response
  try {
    response = await fetch(method === 'GET' ? asSeen(path) : apiAddress(path), {
      method,
      headers,
      body: body === undefined ? undefined : JSON.stringify(body),
      signal,
    })
  } catch (unreachable) {
    if (signal?.aborted) throw unreachable
    throw new Problem(0, '/problems/unreachable', t('valtroDoesNotAnswerWhat'))
  }
  const change = response.headers.get('Valtro-Change')
  if (change) rememberOwn(change)
  if (!response.ok) throw await readProblem(response)
  return (response.status === 204 ? undefined : await response.json()) as Answer<M, Address>
}

/** A name for something that is to be done once, however often it has to be asked for. */
export function newKey(): string {
  return Array.from(crypto.getRandomValues(new Uint8Array(16)), (byte) => byte.toString(16).padStart(2, '0')).join('')
}

/** While somebody looks at things as others see them, everything is asked for as those others get it. */
function lookedAt(path: string): string {
  const audience = seenAs()
  return audience === null ? path : `${path}${path.includes('?') ? '&' : '?'}as=${audience}`
}
