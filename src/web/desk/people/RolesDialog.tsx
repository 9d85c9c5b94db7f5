import { useState } from 'react'
import Modal from 'react-bootstrap/Modal'
import { call, type Calendar, type Member, type RoleOn } from '../api'
import { useRefresh } from '../queries'
import { useToast } from '../Toasts'
import { usePost } from '../usePost'
import { RoleTable } from './RoleTable'
import { t } from './words'

/** Changes what a member may do. */
export function RolesDialog({ member, calendars, onClose }: { member: Member; calendars: Calendar[]; onClose: () => void }) {
  const [isAdministrator, setAdministrator] = useState(member.isAdministrator)
  const [roles, setRoles] = useState<RoleOn[]>(member.roles)
  const { problem, isBusy, post } = usePost()
  const refresh = useRefresh()
  const toast = useToast()
  const put = async (administrator: boolean, given: RoleOn[], version: number) => {
    const done = await call('PUT', `/people/${member.id}/roles`, {
      isAdministrator: administrator,
      roles: given,
      version,
    })
    await refresh.everything()
    if (member.isYou) await refresh.session()
    return done.version
  }
  const undo = async (version: number) => {
    try {
      await put(member.isAdministrator, member.roles, version)
      toast(t('nameMayDoWhatThey', { name: member.name }))
    } catch (failed) {
      toast(failed instanceof Error ? failed.message : String(failed))
    }
  }
  const save = () =>
    post(async () => {
      const version = await put(isAdministrator, roles, member.version)
      toast(t('whatNameMayDoIs', { name: member.name }), () => void undo(version))
      onClose()
    })
  return (
    <Modal show onHide={onClose} size="lg" aria-labelledby="roles-title">
      <Modal.Body>
        <h2 id="roles-title">{t('whatNameMayDo', { name: member.name })}</h2>
        <RoleTable
          calendars={calendars}
          isAdministrator={isAdministrator}
          roles={roles}
          onChange={(administrator, given) => {
            setAdministrator(administrator)
            setRoles(given)
          }}
        />
        {problem && (
          <p className="notice" role="alert">
            {problem.message}
          </p>
        )}
        <p className="popup-acts">
          <button type="button" className="btn btn-spruce" disabled={isBusy} onClick={save}>
            {t('saveTheRoles')}
          </button>{' '}
          <button type="button" className="btn btn-quiet" onClick={onClose}>
            {t('leaveThem')}
          </button>
        </p>
      </Modal.Body>
    </Modal>
  )
}
