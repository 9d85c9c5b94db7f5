import { Plate } from '../../shared/Plate'
import type { Calendar, CalendarRole, RoleOn } from '../api'
import { useGroups } from '../queries'

interface RoleTableProps {
  calendars: Calendar[]
  isAdministrator: boolean
  roles: RoleOn[]
  onChange: (isAdministrator: boolean, roles: RoleOn[]) => void
}

const words: Record<CalendarRole | 'none', string> = {
  none: 'as a member',
  reader: 'reader: sees all of it',
  contributor: 'contributor: hands in for sign-off',
  editor: 'editor: changes it at once, signs off',
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
        <legend>In the organisation</legend>
        <label className="tick">
          <input type="radio" name="organisation-role" checked={!isAdministrator} onChange={() => onChange(false, roles)} />
          <span>
            Member <span className="soft">sees what members may, and has the roles below</span>
          </span>
        </label>
        <label className="tick">
          <input type="radio" name="organisation-role" checked={isAdministrator} onChange={() => onChange(true, roles)} />
          <span>
            Administrator <span className="soft">everything, on every calendar</span>
          </span>
        </label>
      </fieldset>
      {!isAdministrator && (
        <table className="plain-table role-table">
          <caption className="visually-hidden">Roles by calendar</caption>
          <tbody>
            {groups
              .filter((group) => group.calendars.length > 0)
              .map((group) => (
                <tr key={group.id} className="is-group">
                  <th scope="row">All of {group.name}</th>
                  <td>
                    <select
                      className="form-select"
                      aria-label={`Role on all of ${group.name}`}
                      value=""
                      onChange={(event) =>
                        event.target.value && give(group.calendars, event.target.value as CalendarRole | 'none')
                      }
                    >
                      <option value="">give one …</option>
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
                    aria-label={`Role on ${calendar.name}`}
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
