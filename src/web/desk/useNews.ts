import { useEffect, useEffectEvent } from 'react'
import { apiAddress } from './api'
import { useRefresh } from './refresh'
import { setTold } from './told'

/** What comes at one moment is one change. */
const GATHER = 400

/** Listens to the desk's news while the tab can be seen; what it shows is asked for anew when something of it changed. */
export function useNews(isWanted: boolean): void {
  const { everything } = useRefresh()
  const askAnew = useEffectEvent(everything)
  useEffect(() => {
    if (!isWanted || typeof SharedWorker === 'undefined') return
    let timer: ReturnType<typeof setTimeout> | undefined
    let isLost = false
    const refresh = () => {
      clearTimeout(timer)
      timer = setTimeout(() => void askAnew(), GATHER)
    }
    const worker = new SharedWorker(new URL('./news.worker.ts', import.meta.url), {
      type: 'module',
      name: apiAddress('/changes'),
    })
    worker.port.onmessage = ({ data }: MessageEvent<'open' | 'closed' | 'changed'>) => {
      // What changed while nobody listened is not told of any more.
      if (data === 'changed' || (data === 'open' && isLost)) refresh()
      setTold(data !== 'closed')
      isLost = data === 'closed'
    }
    worker.onerror = () => setTold(false)
    const look = () => {
      worker.port.postMessage(document.hidden ? 'leave' : 'listen')
      if (document.hidden) {
        setTold(false)
        isLost = true
      }
    }
    const leave = () => worker.port.postMessage('leave')
    document.addEventListener('visibilitychange', look)
    window.addEventListener('pagehide', leave)
    look()
    return () => {
      clearTimeout(timer)
      document.removeEventListener('visibilitychange', look)
      window.removeEventListener('pagehide', leave)
      leave()
      setTold(false)
    }
  }, [isWanted])
}
