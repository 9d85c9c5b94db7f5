import { useState } from 'react'
import type { AuditLine } from '../api'
import { useAudit, useOrganisation } from '../queries'

const said: Record<AuditLine['act'], string> = {
  opened: 'opened',
  closed: 'closed',
  calendarMade: 'made the calendar',
  calendarArchived: 'archived',
  calendarRestored: 'brought back',
  calendarRemoved: 'removed the calendar',
  calendarMerged: 'merged',
  editionMade: 'made an edition',
  editionChanged: 'changed an edition',
  editionRemoved: 'removed an edition',
  editionRestored: 'brought back an edition',
  linkMade: 'made a secret link for',
  linkReplaced: 'replaced the secret link of',
  linkWithdrawn: 'withdrew the secret link of',
  invited: 'invited',
  invitationWithdrawn: 'withdrew the invitation of',
  invitationAccepted: 'accepted the invitation to',
  rolesChanged: 'changed the roles of',
  personRemoved: 'removed',
  passwordReset: 'set a new password for',
  signedOutEverywhere: 'signed out everywhere:',
  approved: 'let go out',
  sentBack: 'sent back',
  listChanged: 'changed on a list:',
}

/** Who opened, closed, invited, approved, and when. */
export function AuditList() {
  const [act, setAct] = useState('')
  const audit = useAudit(act)
  const { locale, zone } = useOrganisation()
  const when = new Intl.DateTimeFormat(locale, { dateStyle: 'medium', timeStyle: 'short', timeZone: zone })
  const lines = audit.data?.pages.flat() ?? []
  return (
    <>
      <p className="audit-tools">
        <label htmlFor="audit-act">Show</label>
        <select id="audit-act" className="form-select" value={act} onChange={(event) => setAct(event.target.value)}>
          <option value="">everything</option>
          {Object.entries(said).map(([name, words]) => (
            <option key={name} value={name}>
              … {words.replace(/:$/, '')}
            </option>
          ))}
        </select>
      </p>
      {audit.error && (
        <p className="notice" role="alert">
          {audit.error.message}
        </p>
      )}
      {audit.data && lines.length === 0 && <p className="empty">Nothing of that kind was done yet.</p>}
      {lines.length > 0 && (
        <table className="plain-table">
          <thead>
            <tr>
              <th scope="col">When</th>
              <th scope="col">Who</th>
              <th scope="col">What</th>
              <th scope="col">More</th>
            </tr>
          </thead>
          <tbody>
            {lines.map((line) => (
              <tr key={line.id}>
                <td>{when.format(new Date(line.at))}</td>
                <td>{line.by}</td>
                <td>
                  {said[line.act]} <b>{line.subject}</b>
                </td>
                <td>{line.detail}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {audit.hasNextPage && (
        <button type="button" className="btn btn-outline-ink" onClick={() => audit.fetchNextPage()}>
          Older ones
        </button>
      )}
    </>
  )
}
