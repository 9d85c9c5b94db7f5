import type { Answer, Method, Sent } from './addresses'
import { Problem, readProblem } from './Problem'
import { rememberOwn } from './own'
import { seenAs } from './seeAs'
import { signedInAgain } from './session/again'
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

/** Asks the API; which addresses there are, what is sent and what comes back is as its OpenAPI document says. */
export async function call<M extends Method, Address extends string>(
  method: M,
  path: Address,
  ...[body, { signal, once } = {}]: Sent<M, Address>
): Promise<Answer<M, Address>> {
  const response = await send(path, {
    method,
    headers: {
      ...(body !== undefined && { 'Content-Type': 'application/json' }),
      ...(once && { 'Idempotency-Key': once }),
    },
    body: body === undefined ? undefined : JSON.stringify(body),
    signal,
  })
  return (response.status === 204 ? undefined : await response.json()) as Answer<M, Address>
}

/** Brings a file, as it is. */
export async function bring<Brought>(
  path: string,
  file: File,
  words: { away: string; tooLarge: string },
  method: 'POST' | 'PUT' = 'POST',
): Promise<Brought> {
  try {
    const headers = { 'Content-Type': 'application/octet-stream' }
    return (await (await send(path, { method, headers, body: file })).json()) as Brought
  } catch (failed) {
    if (!(failed instanceof Problem)) throw failed
    if (failed.type === '/problems/unreachable') throw new Problem(0, failed.type, words.away)
    throw failed.status === 413 ? new Problem(413, '', words.tooLarge) : failed
  }
}

interface Asked {
  method: Method
  headers: Record<string, string>
  body?: BodyInit
  signal?: AbortSignal
}

/** Where the session has ended, whoever asks signs in again and it is asked once more: nothing that was typed is lost. */
async function send(path: string, asked: Asked): Promise<Response> {
  try {
    return await sendOnce(path, asked)
  } catch (failed) {
    if (!(failed instanceof Problem && endsSession.has(failed.type)) || path.startsWith('/session')) throw failed
    if (!(await signedInAgain(asked.method !== 'GET'))) throw failed
    return await sendOnce(path, asked)
  }
}

/** Signed out, or signed in anew in another window: nothing was done. */
const endsSession: ReadonlySet<Problem['type']> = new Set(['/problems/sign-in-needed', '/problems/stale-session'])

async function sendOnce(path: string, { method, headers, body, signal }: Asked): Promise<Response> {
  let response: Response
  try {
    response = await fetch(method === 'GET' ? asSeen(path) : apiAddress(path), {
      method,
      // A change shows that it comes from here.
      headers: { Accept: 'application/json', ...(method !== 'GET' && { 'X-Valtro-Token': antiforgeryToken }), ...headers },
      body,
      signal,
    })
  } catch (unreachable) {
    if (signal?.aborted) throw unreachable
    throw new Problem(0, '/problems/unreachable', t('valtroDoesNotAnswerWhat'))
  }
  const change = response.headers.get('Valtro-Change')
  if (change) rememberOwn(change)
  if (!response.ok) throw await readProblem(response)
  return response
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
