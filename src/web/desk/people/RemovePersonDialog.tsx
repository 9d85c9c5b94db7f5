import Modal from 'react-bootstrap/Modal'
import type { Member } from '../types'
import { useWrite } from '../useWrite'
import { useToast } from '../Toasts'
import { usePost } from '../usePost'
import { t } from './words'

/** Takes a person out of the organisation, after saying what that means. */
export function RemovePersonDialog({ member, onClose }: { member: Member; onClose: () => void }) {
  const { problem, isBusy, post } = usePost()
  const write = useWrite()
  const toast = useToast()
  const remove = () =>
    post(async () => {
      await write('DELETE', `/people/${member.id}`)
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
