import type { Calendar } from '../types'
import { Field } from '../Field'
import { useWrite } from '../useWrite'
import { useToast } from '../Toasts'
import { useFields } from '../useFields'
import { usePost } from '../usePost'
import { RightsDialog, type Rights } from './RightsDialog'
import { t } from './words'

const nobody: Rights & { email: string } = { email: '', isAdministrator: false, roles: [] }

/** Invites somebody by e-mail address, with what they will be allowed to do. */
export function InviteDialog({ calendars, onClose }: { calendars: Calendar[]; onClose: () => void }) {
  const { values, set, text } = useFields(nobody)
  const { problem, isBusy, post } = usePost()
  const write = useWrite()
  const toast = useToast()
  const invite = () =>
    post(async () => {
      await write('POST', '/people/invitations', { ...values, roles: values.isAdministrator ? [] : values.roles })
      toast(t('emailIsInvitedTheLink', { email: values.email }))
      onClose()
    })
  return (
    <RightsDialog
      title={t('inviteSomebody')}
      save={t('sendTheInvitation')}
      leave={t('leaveIt')}
      fields={['email']}
      rights={values}
      onChange={set}
      onSave={invite}
      {...{ calendars, problem, isBusy, onClose }}
    >
      <Field id="email" label={t('eMailAddress')} type="email" problem={problem} autoFocus {...text('email')} />
    </RightsDialog>
  )
}
