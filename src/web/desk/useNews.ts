import { useEffect, useEffectEvent } from 'react'
import { apiAddress } from './api'
import type { News } from './news.worker'
import { isOwn } from './own'
import { useRefresh } from './refresh'
import { setTold } from './told'

/** What comes at one moment is one change, and what this tab changed itself has its answer by then. */
const GATHER = 400
const nobodyKnows = ''

/** Listens to the desk's news while the tab can be seen; what it shows is asked for anew when something of it changed. */
export function useNews(isWanted: boolean): void {
  const { everything } = useRefresh()
  const askAnew = useEffectEvent(everything)
  useEffect(() => {
    if (!isWanted || typeof SharedWorker === 'undefined') return
    let timer: ReturnType<typeof setTimeout> | undefined
    let isLost = false
    let heard: string[] = []
    const look = () => {
      // What this tab changed it has asked for itself.
      if (!heard.every(isOwn)) void askAnew()
      heard = []
    }
    const refresh = (by: string[]) => {
      heard.push(...by)
      clearTimeout(timer)
      timer = setTimeout(look, GATHER)
    }
    const worker = new SharedWorker(new URL('./news.worker.ts', import.meta.url), {
      type: 'module',
      name: apiAddress('/changes'),
    })
    worker.port.onmessage = ({ data }: MessageEvent<News>) => {
      if (Array.isArray(data)) {
        refresh(data.length > 0 ? data : [nobodyKnows])
        return
      }
      // What changed while nobody listened is not told of any more.
      if (data === 'open' && isLost) refresh([nobodyKnows])
      setTold(data !== 'closed')
      isLost = data === 'closed'
    }
    worker.onerror = () => setTold(false)
    const turn = () => {
      worker.port.postMessage(document.hidden ? 'leave' : 'listen')
      if (document.hidden) {
        setTold(false)
        isLost = true
      }
    }
    const leave = () => worker.port.postMessage('leave')
    document.addEventListener('visibilitychange', turn)
    window.addEventListener('pagehide', leave)
    turn()
    return () => {
      clearTimeout(timer)
      document.removeEventListener('visibilitychange', turn)
      window.removeEventListener('pagehide', leave)
      leave()
      setTold(false)
    }
  }, [isWanted])
}
