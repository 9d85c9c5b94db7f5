import { useState } from 'react'
import { useWrite } from './useWrite'
import { useToast } from './Toasts'
import { usePost } from './usePost'
import { t } from './words'

/** What is said of a secret address. */
export interface SecretWords {
  make: string
  made: string
  /** Said in full where the address does not stand right above it. */
  replace?: string
  /** What follows from replacing it, and from withdrawing it; what cannot be withdrawn has nothing there. */
  ifReplaced: string
  doReplace: string
  replaced: string
  ifWithdrawn?: string
  doWithdraw?: string
  withdrawn?: string
}

interface SecretActsProps {
  path: `/calendars/${string}/link` | `/editions/${string}/link` | '/account/events/link'
  isThere: boolean
  words: SecretWords
  onDone?: () => void
}

/** Makes, replaces and withdraws a secret address. The last two cannot be undone, so they are asked about. */
export function SecretActs({ path, isThere, words, onDone }: SecretActsProps) {
  const [asking, setAsking] = useState<'replace' | 'withdraw' | null>(null)
  const { problem, isBusy, post, forget } = usePost()
  const write = useWrite()
  const toast = useToast()
  const run = (method: 'POST' | 'DELETE', said: string) =>
    post(async () => {
      await write(method, path)
      onDone?.()
      setAsking(null)
      toast(said)
    })
  const leave = () => {
    forget()
    setAsking(null)
  }
  return (
    <>
      {!isThere && (
        <button type="button" className="btn btn-outline-ink" disabled={isBusy} onClick={() => run('POST', words.made)}>
          {words.make}
        </button>
      )}
      {isThere && asking === null && (
        <p>
          <button type="button" className="btn btn-outline-ink" onClick={() => setAsking('replace')}>
            {words.replace ?? t('replaceIt')}
          </button>{' '}
          {words.ifWithdrawn && (
            <button type="button" className="btn btn-brick" onClick={() => setAsking('withdraw')}>
              {t('withdrawIt')}
            </button>
          )}
        </p>
      )}
      {isThere && asking !== null && (
        <div className="asking" role="alert">
          <p>{asking === 'replace' ? words.ifReplaced : words.ifWithdrawn}</p>
          <button
            type="button"
            className={asking === 'replace' ? 'btn btn-spruce' : 'btn btn-brick'}
            disabled={isBusy}
            onClick={() => (asking === 'replace' ? run('POST', words.replaced) : run('DELETE', words.withdrawn ?? ''))}
          >
            {asking === 'replace' ? words.doReplace : words.doWithdraw}
          </button>{' '}
          <button type="button" className="btn btn-quiet" onClick={leave}>
            {t('leaveIt')}
          </button>
        </div>
      )}
      {problem && (
        <p className="refusal" role="alert">
          {problem.message}
        </p>
      )}
    </>
  )
}
