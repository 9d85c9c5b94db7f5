import type { Calendar, Member } from '../types'
import { useRefresh } from '../refresh'
import { useWrite } from '../useWrite'
import { useToast } from '../Toasts'
import { useFields } from '../useFields'
import { usePost } from '../usePost'
import { RightsDialog, type Rights } from './RightsDialog'
import { t } from './words'

/** Changes what a member may do. */
export function RolesDialog({ member, calendars, onClose }: { member: Member; calendars: Calendar[]; onClose: () => void }) {
  const before: Rights = { isAdministrator: member.isAdministrator, roles: member.roles }
  const { values: rights, set } = useFields(before)
  const { problem, isBusy, post } = usePost()
  const refresh = useRefresh()
  const write = useWrite()
  const toast = useToast()
  const put = async (given: Rights, version: number) => {
    const done = await write('PUT', `/people/${member.id}/roles`, { ...given, version })
    if (member.isYou) await refresh.session()
    return done.version
  }
  const undo = async (version: number) => {
    await put(before, version)
    toast(t('nameMayDoWhatThey', { name: member.name }))
  }
  const save = () =>
    post(async () => {
      const version = await put(rights, member.version)
      toast(t('whatNameMayDoIs', { name: member.name }), () => undo(version))
      onClose()
    })
  return (
    <RightsDialog
      title={t('whatNameMayDo', { name: member.name })}
      save={t('saveTheRoles')}
      leave={t('leaveThem')}
      fields={[]}
      onChange={set}
      onSave={save}
      {...{ calendars, rights, problem, isBusy, onClose }}
    />
  )
}
