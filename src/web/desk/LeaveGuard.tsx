import { useEffect, useState } from 'react'
import { useBlocker, useNavigate } from 'react-router'
import { t } from './words'

/**
 * Keeps what was typed from being lost by leaving: within the desk it asks, and the browser asks when the window is closed.
 * `guard` is to be shown on the page; `leaveTo` goes on without asking, once all is saved.
 */
export function useLeaveGuard(isDirty: boolean, words: string) {
  const [destination, leaveTo] = useState<string | null>(null)
  const navigate = useNavigate()
  const holds = isDirty && destination === null
  const blocker = useBlocker(({ currentLocation, nextLocation }) => holds && currentLocation.pathname !== nextLocation.pathname)

  useEffect(() => {
    if (destination) void navigate(destination)
  }, [destination, navigate])
  useEffect(() => {
    if (!holds) return
    const warn = (event: BeforeUnloadEvent) => event.preventDefault()
    window.addEventListener('beforeunload', warn)
    return () => window.removeEventListener('beforeunload', warn)
  }, [holds])

  const guard =
    blocker.state === 'blocked' ? (
      <div className="leave-guard" role="alertdialog" aria-label={t('leaveWithoutSaving')}>
        <p>{words}</p>
        <button type="button" className="btn btn-spruce" autoFocus onClick={() => blocker.reset()}>
          {t('stayHere')}
        </button>
        <button type="button" className="btn btn-quiet" onClick={() => blocker.proceed()}>
          {t('leaveAnyway')}
        </button>
      </div>
    ) : null
  return { guard, leaveTo }
}
