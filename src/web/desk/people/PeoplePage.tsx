import { useState } from 'react'
import { useSearchParams } from 'react-router'
import { Plate } from '../../shared/Plate'
import { call, type Calendar, type Invitation, type Member, type RoleOn } from '../api'
import { sayAgo } from '../Delivery'
import { NothingHere } from '../NothingHere'
import { useCalendars, usePeople, useRefresh } from '../queries'
import { useToast } from '../Toasts'
import { AuditList } from './AuditList'
import { InviteDialog } from './InviteDialog'
import { RemovePersonDialog } from './RemovePersonDialog'
import { RolesDialog } from './RolesDialog'

/** Who belongs to the organisation, what they may do, who is invited, and what was done. */
export function PeoplePage() {
  const people = usePeople()
  const calendars = useCalendars().data ?? []
  const [parameters, setParameters] = useSearchParams()
  const [isInviting, setInviting] = useState(false)
  const isAudit = parameters.get('view') === 'audit'
  if (people.error) return <NothingHere detail={people.error.message} />
  if (!people.data) return <p className="page">Opening …</p>
  return (
    <main className="page people">
      <div className="page-head">
        <h1>People</h1>
        <div className="joined" role="group" aria-label="Which list">
          <button type="button" aria-pressed={!isAudit} onClick={() => setParameters({})}>
            Who belongs here
          </button>
          <button type="button" aria-pressed={isAudit} onClick={() => setParameters({ view: 'audit' })}>
            Who did what
          </button>
        </div>
        <span className="stretch" />
        <button type="button" className="btn btn-spruce" onClick={() => setInviting(true)}>
          Invite somebody
        </button>
      </div>
      {isAudit ? (
        <AuditList />
      ) : (
        <>
          <Members members={people.data.members} calendars={calendars} />
          <Invitations invitations={people.data.invitations} calendars={calendars} />
        </>
      )}
      {isInviting && <InviteDialog calendars={calendars} onClose={() => setInviting(false)} />}
    </main>
  )
}

function Members({ members, calendars }: { members: Member[]; calendars: Calendar[] }) {
  const [asking, setAsking] = useState<{ member: Member; what: 'roles' | 'remove' } | null>(null)
  const toast = useToast()
  const reset = async (member: Member) => {
    try {
      await call('POST', `/people/${member.id}/password-reset`)
      toast(`${member.name} gets a mail with which they set a new password.`)
    } catch (failed) {
      toast(failed instanceof Error ? failed.message : String(failed))
    }
  }
  return (
    <div className="table-scroll" tabIndex={0} role="region" aria-label="Members">
      <table className="plain-table">
        <thead>
          <tr>
            <th scope="col">Name</th>
            <th scope="col">E-mail address</th>
            <th scope="col">May do</th>
            <th scope="col">Last signed in</th>
            <th scope="col">
              <span className="visually-hidden">Acts</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {members.map((member) => (
            <tr key={member.id}>
              <th scope="row">
                {member.name}
                {member.isYou && <span className="soft"> you</span>}
              </th>
              <td>{member.email}</td>
              <td>
                <Roles isAdministrator={member.isAdministrator} roles={member.roles} calendars={calendars} />
              </td>
              <td>{member.lastSignInAt ? sayAgo(member.lastSignInAt) : <span className="soft">never</span>}</td>
              <td className="row-links">
                <button type="button" className="as-link" onClick={() => setAsking({ member, what: 'roles' })}>
                  Change roles<span className="visually-hidden"> of {member.name}</span>
                </button>
                <button type="button" className="as-link" onClick={() => reset(member)}>
                  New password<span className="visually-hidden"> for {member.name}</span>
                </button>
                <button type="button" className="as-link is-brick" onClick={() => setAsking({ member, what: 'remove' })}>
                  Remove<span className="visually-hidden"> {member.name}</span>
                </button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {asking?.what === 'roles' && <RolesDialog member={asking.member} calendars={calendars} onClose={() => setAsking(null)} />}
      {asking?.what === 'remove' && <RemovePersonDialog member={asking.member} onClose={() => setAsking(null)} />}
    </div>
  )
}

/** "Administrator", or a member's roles by calendar. */
function Roles({ isAdministrator, roles, calendars }: { isAdministrator: boolean; roles: RoleOn[]; calendars: Calendar[] }) {
  if (isAdministrator) return <b>Administrator</b>
  if (roles.length === 0) return <>Member</>
  const words = { editor: 'Editor', contributor: 'Contributor', reader: 'Reader' }
  return (
    <ul className="roles">
      {(['editor', 'contributor', 'reader'] as const)
        .filter((role) => roles.some((one) => one.role === role))
        .map((role) => (
          <li key={role}>
            {words[role]}{' '}
            {calendars
              .filter((calendar) => roles.some((one) => one.role === role && one.calendarId === calendar.id))
              .map((calendar) => (
                <Plate key={calendar.id} code={calendar.plate} colour={calendar.colour} size="small" />
              ))}
          </li>
        ))}
    </ul>
  )
}

function Invitations({ invitations, calendars }: { invitations: Invitation[]; calendars: Calendar[] }) {
  const refresh = useRefresh()
  const toast = useToast()
  const act = async (done: () => Promise<unknown>, said: string) => {
    try {
      await done()
      await refresh.everything()
      toast(said)
    } catch (failed) {
      toast(failed instanceof Error ? failed.message : String(failed))
    }
  }
  if (invitations.length === 0) return null
  return (
    <section>
      <h2>Invited</h2>
      <table className="plain-table">
        <thead>
          <tr>
            <th scope="col">E-mail address</th>
            <th scope="col">Will be</th>
            <th scope="col">Invited</th>
            <th scope="col">
              <span className="visually-hidden">Acts</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {invitations.map((invitation) => (
            <tr key={invitation.id}>
              <th scope="row">{invitation.email}</th>
              <td>
                <Roles isAdministrator={invitation.isAdministrator} roles={invitation.roles} calendars={calendars} />
              </td>
              <td>
                {sayAgo(invitation.invitedAt)} by {invitation.invitedBy}
                {invitation.isExpired && <span className="remark"> too old by now: send it again</span>}
              </td>
              <td className="row-links">
                <button
                  type="button"
                  className="as-link"
                  onClick={() =>
                    act(
                      () => call('POST', `/people/invitations/${invitation.id}/again`),
                      `A new mail is on its way to ${invitation.email}. The link in the old one does not work any more.`,
                    )
                  }
                >
                  Send again<span className="visually-hidden"> to {invitation.email}</span>
                </button>
                <button
                  type="button"
                  className="as-link is-brick"
                  onClick={() =>
                    act(
                      () => call('DELETE', `/people/invitations/${invitation.id}`),
                      `The invitation of ${invitation.email} is withdrawn.`,
                    )
                  }
                >
                  Withdraw<span className="visually-hidden"> the invitation of {invitation.email}</span>
                </button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  )
}
