/*
 * One stream of the desk's news for all its tabs: on HTTP/1.1 a browser keeps six connections to a server, and each tab with its
 * own would take one for good. The name of the worker is the address that it listens to.
 */
interface WorkerScope {
  name: string
  onconnect: (event: MessageEvent) => void
}

/** By which requests something changed: none where nobody knows. */
export type News = 'open' | 'closed' | string[]

const scope = globalThis as unknown as WorkerScope
const tabs = new Set<MessagePort>()
let source: EventSource | null = null

function tellAll(news: News): void {
  tabs.forEach((tab) => tab.postMessage(news))
}

scope.onconnect = ({ ports: [tab] }) => {
  if (!tab) return
  tab.onmessage = ({ data }: MessageEvent<'listen' | 'leave'>) => {
    if (data === 'listen') tabs.add(tab)
    else tabs.delete(tab)
    if (tabs.size === 0) {
      source?.close()
      source = null
    } else if (!source || source.readyState === EventSource.CLOSED) {
      source = new EventSource(scope.name)
      source.onopen = () => tellAll('open')
      source.onerror = () => tellAll('closed')
      source.addEventListener('desk', ({ data }: MessageEvent<string>) => tellAll(data.split(' ').filter(Boolean)))
    } else if (source.readyState === EventSource.OPEN) tab.postMessage('open')
  }
}
