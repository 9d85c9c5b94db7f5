/*
 * One stream of news for all pages and frames of a browser that may share it: on HTTP/1.1 a browser keeps six connections to a
 * server, and each page with its own would take one for good.
 */
import type { FromStream, ToStream } from './stream'

interface WorkerScope {
  onconnect: (event: MessageEvent) => void
}

const wanted = new Map<MessagePort, string>()
let source: EventSource | null = null
let listensTo = ''
let timer: ReturnType<typeof setTimeout> | undefined

/** Pages that come and go at one moment are one change. */
const GATHER = 60

function tell(port: MessagePort, message: FromStream): void {
  port.postMessage(message)
}

function renew(): void {
  const bases = [...new Set(wanted.values())].sort()
  const query = bases.map((base) => `of=${encodeURIComponent(base)}`).join('&')
  if (query === listensTo && source?.readyState !== EventSource.CLOSED) return
  listensTo = query
  source?.close()
  source = null
  if (bases.length === 0) return
  source = new EventSource(`/c/changes?${query}`)
  source.onopen = () => wanted.forEach((_, port) => tell(port, { isOpen: true }))
  source.onerror = () => wanted.forEach((_, port) => tell(port, { isOpen: false }))
  source.addEventListener('edition', (news) => {
    const { of, version } = JSON.parse(news.data as string) as { of: string; version: string }
    wanted.forEach((base, port) => base === of && tell(port, { version }))
  })
}

;(globalThis as unknown as WorkerScope).onconnect = ({ ports: [port] }) => {
  if (!port) return
  port.onmessage = ({ data }: MessageEvent<ToStream>) => {
    if (data.listen === null) wanted.delete(port)
    else wanted.set(port, data.listen)
    clearTimeout(timer)
    timer = setTimeout(renew, GATHER)
  }
}
