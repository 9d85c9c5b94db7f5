/*
 * Keeps the last good copy of what somebody read below /c/, for when there is no network. What is there is always asked for first:
 * a kept copy is shown only where nothing answers, and says since when it is kept. What is gone (404, 410) is forgotten.
 */

/** What of a service worker is used here: its library does not stand beside that of pages. */
interface Fetching extends Event {
  request: Request
  respondWith: (answer: Promise<Response>) => void
}

interface Extending extends Event {
  waitUntil: (work: Promise<unknown>) => void
}

const store = 'valtro-pages-1'
const files = 'valtro-files-1'
const MOST_KEPT = 80

/** When a copy was kept, in its own header. */
const KEPT_AT = 'x-kept-at'

addEventListener('activate', (event) => {
  const old = caches
    .keys()
    .then((names) => Promise.all(names.filter((name) => ![store, files].includes(name)).map((name) => caches.delete(name))))
  ;(event as Extending).waitUntil(old)
})

addEventListener('fetch', (event) => {
  const fetching = event as Fetching
  const { request } = fetching
  const address = new URL(request.url)
  if (request.method !== 'GET' || address.origin !== location.origin) return
  if (address.pathname.startsWith('/assets/')) fetching.respondWith(asset(request))
  // News are a stream; secret addresses and the desk are none of its business.
  else if (address.pathname.startsWith('/c/') && !address.pathname.endsWith('/changes'))
    fetching.respondWith(newest(request, address))
})

/** Names of these hold a digest of what is in them: what is kept is right for ever. */
async function asset(request: Request): Promise<Response> {
  const cache = await caches.open(files)
  const kept = await cache.match(request)
  if (kept) return kept
  const answer = await fetch(request)
  if (answer.ok) await keep(cache, request, answer.clone())
  return answer
}

/** Without what is asked of the page (a day, a view): all of them are the same page to whoever has no network. */
const keyOf = (address: URL, isPage: boolean) => (isPage ? address.origin + address.pathname : address.href)

async function newest(request: Request, address: URL): Promise<Response> {
  const cache = await caches.open(store)
  const isPage = request.mode === 'navigate'
  const key = keyOf(address, isPage)
  let answer: Response
  try {
    // A page is asked for anew: what the browser itself has of it may have been closed since.
    answer = await fetch(isPage ? new Request(request, { cache: 'no-cache' }) : request)
  } catch (away) {
    const kept = await cache.match(key)
    if (!kept) throw away
    return kept
  }
  if (answer.status === 404 || answer.status === 410) await forget(cache, address)
  else if (answer.ok && answer.type === 'basic' && !answer.redirected) await keep(cache, key, await dated(answer.clone()))
  return answer
}

/** All of a page that is gone: its parts, files and entries too. */
async function forget(cache: Cache, gone: URL): Promise<void> {
  const base = gone.origin + gone.pathname.replace(/\.(json|ics|atom)$/, '')
  for (const one of await cache.keys()) {
    const path = one.url.replace(/\?.*$/, '')
    if (path === base || path.startsWith(`${base}/`) || path.startsWith(`${base}.`)) await cache.delete(one)
  }
}

/** The same, with when it was kept: pages in their head, all else in a header. */
async function dated(answer: Response): Promise<Response> {
  const headers = new Headers(answer.headers)
  const now = new Date().toISOString()
  headers.set(KEPT_AT, now)
  // It is kept as it reads, not as it came.
  for (const name of ['content-encoding', 'content-length']) headers.delete(name)
  const isPage = headers.get('content-type')?.startsWith('text/html')
  const body = isPage
    ? (await answer.text()).replace('</head>', `<meta name="kept-at" content="${now}">\n</head>`)
    : await answer.blob()
  return new Response(body, { status: answer.status, headers })
}

/** The oldest make room. */
async function keep(cache: Cache, key: Request | string, answer: Response): Promise<void> {
  await cache.delete(key)
  await cache.put(key, answer)
  const all = await cache.keys()
  for (const one of all.slice(0, Math.max(0, all.length - MOST_KEPT))) await cache.delete(one)
}
