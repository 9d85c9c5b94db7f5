import Modal from 'react-bootstrap/Modal'
import { call, type Member } from '../api'
import { useRefresh } from '../queries'
import { useToast } from '../Toasts'
import { usePost } from '../usePost'

/** Takes a person out of the organisation, after saying what that means. */
export function RemovePersonDialog({ member, onClose }: { member: Member; onClose: () => void }) {
  const { problem, isBusy, post } = usePost()
  const refresh = useRefresh()
  const toast = useToast()
  const remove = () =>
    post(async () => {
      await call('DELETE', `/people/${member.id}`)
      await refresh.everything()
      toast(`${member.name} does not belong to the organisation any more.`)
      onClose()
    })
  return (
    <Modal show onHide={onClose} aria-labelledby="remove-person">
      <Modal.Body>
        <h2 id="remove-person">Remove {member.name}?</h2>
        <p>
          They are signed out at once and cannot sign in any more. What they made and wrote stays, with their name, and what they
          handed in can still be decided. To bring them back, invite them again.
        </p>
        {problem && (
          <p className="refusal" role="alert">
            {problem.message}
          </p>
        )}
        <button type="button" className="btn btn-brick" disabled={isBusy} onClick={remove}>
          Remove {member.name}
        </button>{' '}
        <button type="button" className="btn btn-quiet" autoFocus onClick={onClose}>
          Leave it
        </button>
      </Modal.Body>
    </Modal>
  )
}
