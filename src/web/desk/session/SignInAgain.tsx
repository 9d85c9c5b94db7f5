import { useState, type FormEvent } from 'react'
import Modal from 'react-bootstrap/Modal'
import { call, rememberToken } from '../api'
import type { Session } from '../types'
import { useFields } from '../useFields'
import { usePost } from '../usePost'
import { t } from './words'

interface SignInAgainProps {
  person: NonNullable<Session['person']>
  onDone: (isSignedIn: boolean) => void
}

/** Asks for the password of whose session has ended, over what they were at. */
export function SignInAgain({ person, onDone }: SignInAgainProps) {
  const { values, text } = useFields({ password: '' })
  const [isTried, setTried] = useState(false)
  const { problem, isBusy, post } = usePost()
  const submit = (event: FormEvent) => {
    event.preventDefault()
    setTried(true)
    if (values.password === '') return
    void post(async () => {
      // The token is the session's, and there is none now.
      rememberToken(await call('GET', '/session'))
      rememberToken(await call('POST', '/session', { email: person.email, password: values.password }))
      onDone(true)
    })
  }
  return (
    <Modal show backdrop="static" keyboard={false} className="sign-in-again" aria-labelledby="again-title">
      <form onSubmit={submit} noValidate>
        <Modal.Body>
          <h2 id="again-title">{t('theSessionHasEnded')}</h2>
          <p>{t('nothingIsLost')}</p>
          <input
            type="email"
            className="visually-hidden"
            autoComplete="username"
            value={person.email}
            readOnly
            tabIndex={-1}
            aria-hidden
          />
          <label htmlFor="again-password">{t('passwordOf', { name: person.name })}</label>
          <input
            id="again-password"
            className="form-control"
            type="password"
            autoComplete="current-password"
            autoFocus
            {...text('password')}
          />
          {isTried && values.password === '' && <p className="refusal">{t('giveYourPassword')}</p>}
          {problem && (
            <p className="refusal" role="alert">
              {problem.message}
            </p>
          )}
        </Modal.Body>
        <Modal.Footer>
          <button type="button" className="btn btn-link" onClick={() => onDone(false)}>
            {t('notNow')}
          </button>
          <button type="submit" className="btn btn-spruce" disabled={isBusy}>
            {t('signInAndGoOn')}
          </button>
        </Modal.Footer>
      </form>
    </Modal>
  )
}
