import Modal from 'react-bootstrap/Modal'
import { call } from '../api'
import type { Member } from '../types'
import { useRefresh } from '../refresh'
import { useToast } from '../Toasts'
import { usePost } from '../usePost'
import { t } from './words'

/** Takes a person out of the organisation, after saying what that means. */
export function RemovePersonDialog({ member, onClose }: { member: Member; onClose: () => void }) {
  const { problem, isBusy, post } = usePost()
  const refresh = useRefresh()
  const toast = useToast()
  const remove = () =>
    post(async () => {
      await call('DELETE', `/people/${member.id}`)
      await refresh.everything()
      toast(t('nameDoesNotBelongTo', { name: member.name }))
      onClose()
    })
  return (
    <Modal show onHide={onClose} aria-labelledby="remove-person">
      <Modal.Body>
        <h2 id="remove-person">{t('removeNameAsk', { name: member.name })}</h2>
        <p>{t('theyAreSignedOutAt')}</p>
        {problem && (
          <p className="refusal" role="alert">
            {problem.message}
          </p>
        )}
        <button type="button" className="btn btn-brick" disabled={isBusy} onClick={remove}>
          {t('removePerson', { name: member.name })}
        </button>{' '}
        <button type="button" className="btn btn-quiet" autoFocus onClick={onClose}>
          {t('leaveIt')}
        </button>
      </Modal.Body>
    </Modal>
  )
}
