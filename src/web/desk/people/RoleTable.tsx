import { Plate } from '../../shared/Plate'
import type { Calendar, CalendarRole, RoleOn } from '../types'
import { useGroups } from '../calendars/queries'
import { t } from './words'

interface RoleTableProps {
  calendars: Calendar[]
  isAdministrator: boolean
  roles: RoleOn[]
  onChange: (isAdministrator: boolean, roles: RoleOn[]) => void
}

const words: Record<CalendarRole | 'none', string> = {
  none: t('asAMember'),
  reader: t('readerSeesAllOfIt'),
  contributor: t('contributorHandsInForSign'),
  editor: t('editorChangesItAtOnce'),
}

const roleOptions = Object.entries(words).map(([role, word]) => (
  <option key={role} value={role}>
    {word}
  </option>
))

/** A role in the organisation, and one for each calendar; for a whole group at once. */
export function RoleTable({ calendars, isAdministrator, roles, onChange }: RoleTableProps) {
  const groups = useGroups().data ?? []
  const roleOn = (id: string) => roles.find((one) => one.calendarId === id)?.role ?? 'none'
  const give = (ids: string[], role: CalendarRole | 'none') => {
    const others = roles.filter((one) => !ids.includes(one.calendarId))
    onChange(isAdministrator, role === 'none' ? others : [...others, ...ids.map((calendarId) => ({ calendarId, role }))])
  }
  return (
    <>
      <fieldset className="org-role">
        <legend>{t('inTheOrganisation')}</legend>
        <label className="tick">
          <input type="radio" name="organisation-role" checked={!isAdministrator} onChange={() => onChange(false, roles)} />
          <span>{t.rich('memberSeesWhatMembersMay', {}, <span className="soft" />)}</span>
        </label>
        <label className="tick">
          <input type="radio" name="organisation-role" checked={isAdministrator} onChange={() => onChange(true, roles)} />
          <span>{t.rich('administratorEverythingOnEveryCalendar', {}, <span className="soft" />)}</span>
        </label>
      </fieldset>
      {!isAdministrator && (
        <table className="plain-table role-table">
          <caption className="visually-hidden">{t('rolesByCalendar')}</caption>
          <tbody>
            {groups
              .filter((group) => group.calendars.length > 0)
              .map((group) => (
                <tr key={group.id} className="is-group">
                  <th scope="row">{t('allOfName', { name: group.name })}</th>
                  <td>
                    <select
                      className="form-select"
                      aria-label={t('roleOnAllOfName', { name: group.name })}
                      value=""
                      onChange={(event) =>
                        event.target.value && give(group.calendars, event.target.value as CalendarRole | 'none')
                      }
                    >
                      <option value="">{t('giveOne')}</option>
                      {roleOptions}
                    </select>
                  </td>
                </tr>
              ))}
            {calendars.map((calendar) => (
              <tr key={calendar.id}>
                <th scope="row">
                  <Plate code={calendar.plate} colour={calendar.colour} size="small" /> {calendar.name}
                </th>
                <td>
                  <select
                    className="form-select"
                    aria-label={t('roleOnName', { name: calendar.name })}
                    value={roleOn(calendar.id)}
                    onChange={(event) => give([calendar.id], event.target.value as CalendarRole | 'none')}
                  >
                    {roleOptions}
                  </select>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </>
  )
}
