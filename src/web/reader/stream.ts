/** What a page says to the stream that it shares: of which edition it wants news; null for none. */
export interface ToStream {
  listen: string | null
}

/** What it is told. */
export type FromStream = { version: string } | { isOpen: boolean }

/** News of an edition while the page can be seen. */
export interface Stream {
  /** Whether news come by themselves at the moment. */
  isOpen: () => boolean
  stop: () => void
}

/**
 * Listens to the version of an edition's pages. A page that is hidden listens to nothing; shown again, it is told what
 * is right by then. Where pages may share a worker they share one connection, else each has its own.
 */
export function listen(base: string, onVersion: (version: string) => void): Stream {
  const way = shared(base, onVersion) ?? own(base, onVersion)
  const look = () => (document.hidden ? way.leave() : way.enter())
  document.addEventListener('visibilitychange', look)
  window.addEventListener('pagehide', way.leave)
  window.addEventListener('pageshow', look)
  look()
  return {
    isOpen: way.isOpen,
    stop: () => {
      document.removeEventListener('visibilitychange', look)
      window.removeEventListener('pagehide', way.leave)
      window.removeEventListener('pageshow', look)
      way.leave()
    },
  }
}

interface Way {
  enter: () => void
  leave: () => void
  isOpen: () => boolean
}

function shared(base: string, onVersion: (version: string) => void): Way | null {
  if (typeof SharedWorker === 'undefined') return null
  let worker: SharedWorker
  try {
    worker = new SharedWorker(new URL('./stream.worker.ts', import.meta.url), { type: 'module', name: 'valtro-news' })
  } catch {
    // A frame without an origin of its own may share nothing.
    return null
  }
  let isOpen = false
  let failed: Way | null = null
  const say = (listen: string | null) => worker.port.postMessage({ listen } satisfies ToStream)
  worker.port.onmessage = ({ data }: MessageEvent<FromStream>) => {
    if ('version' in data) {
      isOpen = true
      onVersion(data.version)
    } else isOpen = data.isOpen
  }
  worker.onerror = () => {
    failed = own(base, onVersion)
    if (!document.hidden) failed.enter()
  }
  return {
    enter: () => (failed ? failed.enter() : say(base)),
    leave: () => (failed ? failed.leave() : say(null)),
    isOpen: () => failed?.isOpen() ?? isOpen,
  }
}

function own(base: string, onVersion: (version: string) => void): Way {
  let source: EventSource | null = null
  return {
    enter: () => {
      if (source && source.readyState !== EventSource.CLOSED) return
      source = new EventSource(`${base}/changes`)
      source.addEventListener('edition', (news) => onVersion(news.data as string))
    },
    leave: () => {
      source?.close()
      source = null
    },
    isOpen: () => source?.readyState === EventSource.OPEN,
  }
}
