import { useState } from 'react'
import { Problem } from './Problem'
import { useRefresh } from './refresh'

/** Runs an act of a form: what was refused stays with it, and what is on screen is asked for again. */
export function usePost() {
  const [problem, setProblem] = useState<Problem | null>(null)
  const [isBusy, setBusy] = useState(false)
  const refresh = useRefresh()
  const post = async (act: () => Promise<void>): Promise<boolean> => {
    setProblem(null)
    setBusy(true)
    try {
      await act()
      return true
    } catch (failed) {
      const known = failed instanceof Problem ? failed : new Problem(0, '', String(failed))
      setProblem(known)
      // The session may have ended in another window: signing in again must not cost what was typed.
      if (known.type === '/problems/stale-session') await refresh.session()
      return false
    } finally {
      setBusy(false)
    }
  }
  return { problem, isBusy, post, forget: () => setProblem(null) }
}
