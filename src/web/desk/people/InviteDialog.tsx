import { useState, type FormEvent } from 'react'
import Modal from 'react-bootstrap/Modal'
import { call, type Calendar, type RoleOn } from '../api'
import { Field, WhatWasRefused } from '../Field'
import { useRefresh } from '../queries'
import { useToast } from '../Toasts'
import { usePost } from '../usePost'
import { RoleTable } from './RoleTable'
import { t } from './words'

/** Invites somebody by e-mail address, with what they will be allowed to do. */
export function InviteDialog({ calendars, onClose }: { calendars: Calendar[]; onClose: () => void }) {
  const [email, setEmail] = useState('')
  const [isAdministrator, setAdministrator] = useState(false)
  const [roles, setRoles] = useState<RoleOn[]>([])
  const { problem, isBusy, post } = usePost()
  const refresh = useRefresh()
  const toast = useToast()
  const invite = async (event: FormEvent) => {
    event.preventDefault()
    const done = await post(async () => {
      await call('POST', '/people/invitations', { email, isAdministrator, roles: isAdministrator ? [] : roles })
      await refresh.everything()
    })
    if (!done) return
    toast(t('emailIsInvitedTheLink', { email }))
    onClose()
  }
  return (
    <Modal show onHide={onClose} size="lg" aria-labelledby="invite-title">
      <Modal.Body>
        <h2 id="invite-title">{t('inviteSomebody')}</h2>
        <form onSubmit={invite} noValidate>
          <Field
            id="email"
            label={t('eMailAddress')}
            type="email"
            problem={problem}
            autoFocus
            value={email}
            onChange={(event) => setEmail(event.target.value)}
          />
          <RoleTable
            calendars={calendars}
            isAdministrator={isAdministrator}
            roles={roles}
            onChange={(administrator, given) => {
              setAdministrator(administrator)
              setRoles(given)
            }}
          />
          <WhatWasRefused problem={problem} fields={['email']} />
          <p className="popup-acts">
            <button type="submit" className="btn btn-spruce" disabled={isBusy}>
              {t('sendTheInvitation')}
            </button>{' '}
            <button type="button" className="btn btn-quiet" onClick={onClose}>
              {t('leaveIt')}
            </button>
          </p>
        </form>
      </Modal.Body>
    </Modal>
  )
}
