import { lazy, Suspense, useEffect, useState, type ReactNode } from 'react'
import { call, rememberToken } from '../api'
import type { Session } from '../types'
import { askForPasswordWith } from './again'

const SignInAgain = lazy(() => import('./SignInAgain').then(({ SignInAgain: shown }) => ({ default: shown })))

/** Asks for the password in place where the session of a person has ended; what was asked for meanwhile goes on afterwards. */
export function useSignInAgain(person: Session['person'] | undefined): ReactNode {
  const [answer, setAnswer] = useState<((isSignedIn: boolean) => void) | null>(null)
  const id = person?.id
  useEffect(() => {
    if (id === undefined) return
    return askForPasswordWith(async () => {
      const now = rememberToken(await call('GET', '/session')).person
      // They have signed in again in another window, or somebody else has: what stands here is not theirs.
      if (now) return now.id === id
      return new Promise((resolve) => setAnswer(() => resolve))
    })
  }, [id])
  if (!answer || !person) return null
  const done = (isSignedIn: boolean) => {
    setAnswer(null)
    answer(isSignedIn)
  }
  return (
    <Suspense fallback={null}>
      <SignInAgain person={person} onDone={done} />
    </Suspense>
  )
}
