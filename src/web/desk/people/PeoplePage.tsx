import { useState } from 'react'
import { useSearchParams } from 'react-router'
import { asSeen } from '../api'
import { Plates } from '../Plates'
import type { Calendar, Invitation, Member, RoleOn } from '../types'
import { sayAgo } from '../Delivery'
import { NothingHere } from '../NothingHere'
import { MANY } from '../calendars/finding'
import { useCalendars } from '../calendars/queries'
import { usePeople } from './queries'
import { useAttempt, useWrite } from '../useWrite'
import { useToast } from '../Toasts'
import { AuditList } from './AuditList'
import { InviteDialog } from './InviteDialog'
import { RemovePersonDialog } from './RemovePersonDialog'
import { RolesDialog } from './RolesDialog'
import { t } from './words'

/** Who belongs to the organisation, what they may do, who is invited, and what was done. */
export function PeoplePage() {
  const people = usePeople()
  const calendars = useCalendars().data ?? []
  const [parameters, setParameters] = useSearchParams()
  const [isInviting, setInviting] = useState(false)
  const isAudit = parameters.get('view') === 'audit'
  if (people.error) return <NothingHere detail={people.error.message} />
  if (!people.data) return <p className="page">{t('opening')}</p>
  return (
    <main className="page people">
      <div className="page-head">
        <h1>{t('people')}</h1>
        <div className="joined" role="group" aria-label={t('whichList')}>
          <button type="button" aria-pressed={!isAudit} onClick={() => setParameters({})}>
            {t('whoBelongsHere')}
          </button>
          <button type="button" aria-pressed={isAudit} onClick={() => setParameters({ view: 'audit' })}>
            {t('whoDidWhat')}
          </button>
        </div>
        <span className="stretch" />
        <button type="button" className="btn btn-spruce" onClick={() => setInviting(true)}>
          {t('inviteSomebody')}
        </button>
      </div>
      {isAudit ? (
        <AuditList />
      ) : (
        <>
          <Members members={people.data.members} calendars={calendars} />
          <Invitations invitations={people.data.invitations} calendars={calendars} />
          <section className="archive" aria-labelledby="archive">
            <h2 id="archive">{t('takeItAllAlong')}</h2>
            <p className="soft">{t('whatAnArchiveIs')}</p>
            <a className="btn btn-outline-ink" href={asSeen('/archive')} download>
              {t('makeTheArchive')}
            </a>
          </section>
        </>
      )}
      {isInviting && <InviteDialog calendars={calendars} onClose={() => setInviting(false)} />}
    </main>
  )
}

function Members({ members, calendars }: { members: Member[]; calendars: Calendar[] }) {
  const [text, setText] = useState('')
  const shown = members.filter((member) => isMeant(member, calendars, text))
  const [asking, setAsking] = useState<{ member: Member; what: 'roles' | 'remove' } | null>(null)
  const write = useWrite()
  const attempt = useAttempt()
  const toast = useToast()
  const reset = (member: Member) =>
    attempt(async () => {
      await write('POST', `/people/${member.id}/password-reset`)
      toast(t('nameGetsAMailWith', { name: member.name }))
    })
  return (
    <>
      {members.length > MANY && (
        <p className="find-somebody">
          <input
            className="form-control"
            type="search"
            aria-label={t('findSomebody')}
            placeholder={t('findSomebody')}
            value={text}
            onChange={(event) => setText(event.target.value)}
          />{' '}
          <span className="soft" role="status">
            {t('peopleShown', { shown: shown.length, count: members.length })}
          </span>
        </p>
      )}
      <div className="table-scroll" tabIndex={0} role="region" aria-label={t('members')}>
        <table className="plain-table as-cards">
          <thead>
            <tr>
              <th scope="col">{t('name')}</th>
              <th scope="col">{t('eMailAddress')}</th>
              <th scope="col">{t('mayDo')}</th>
              <th scope="col">{t('lastSignedIn')}</th>
              <th scope="col">
                <span className="visually-hidden">{t('acts')}</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {shown.map((member) => (
              <tr key={member.id}>
                <th scope="row">
                  {member.name}
                  {member.isYou && <span className="soft"> {t('you')}</span>}
                </th>
                <td data-label={t('eMailAddress')}>{member.email}</td>
                <td data-label={t('mayDo')}>
                  <Roles isAdministrator={member.isAdministrator} roles={member.roles} calendars={calendars} />
                </td>
                <td data-label={t('lastSignedIn')}>
                  {member.lastSignInAt ? sayAgo(member.lastSignInAt) : <span className="soft">{t('never')}</span>}
                </td>
                <td className="row-links">
                  <button type="button" className="as-link" onClick={() => setAsking({ member, what: 'roles' })}>
                    {t.rich('changeRolesOfName', { name: member.name }, <span className="visually-hidden" />)}
                  </button>
                  <button type="button" className="as-link" onClick={() => reset(member)}>
                    {t.rich('newPasswordForName', { name: member.name }, <span className="visually-hidden" />)}
                  </button>
                  <button type="button" className="as-link is-brick" onClick={() => setAsking({ member, what: 'remove' })}>
                    {t.rich('removeName', { name: member.name }, <span className="visually-hidden" />)}
                  </button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        {asking?.what === 'roles' && <RolesDialog member={asking.member} calendars={calendars} onClose={() => setAsking(null)} />}
        {asking?.what === 'remove' && <RemovePersonDialog member={asking.member} onClose={() => setAsking(null)} />}
      </div>
    </>
  )
}

/** By name, address, what they may do, or a calendar on which they may. */
function isMeant(member: Member, calendars: Calendar[], text: string): boolean {
  const on = calendars.filter((calendar) => member.roles.some((role) => role.calendarId === calendar.id))
  const said = [
    member.name,
    member.email,
    member.isAdministrator ? t('administrator') : '',
    ...member.roles.map((one) => t(one.role)),
    ...on.flatMap((calendar) => [calendar.name, calendar.plate]),
  ]
  const words = text.toLocaleLowerCase().split(/\s+/)
  return words.every((word) => said.some((one) => one.toLocaleLowerCase().includes(word)))
}

/** "Administrator", or a member's roles by calendar. */
function Roles({ isAdministrator, roles, calendars }: { isAdministrator: boolean; roles: RoleOn[]; calendars: Calendar[] }) {
  if (isAdministrator) return <b>{t('administrator')}</b>
  if (roles.length === 0) return <>{t('member')}</>
  const words = { editor: t('editor'), contributor: t('contributor'), reader: t('reader') }
  return (
    <ul className="roles">
      {(['editor', 'contributor', 'reader'] as const)
        .filter((role) => roles.some((one) => one.role === role))
        .map((role) => (
          <li key={role}>
            {words[role]}{' '}
            <Plates
              calendars={calendars.filter((calendar) => roles.some((one) => one.role === role && one.calendarId === calendar.id))}
            />
          </li>
        ))}
    </ul>
  )
}

function Invitations({ invitations, calendars }: { invitations: Invitation[]; calendars: Calendar[] }) {
  const write = useWrite()
  const attempt = useAttempt()
  const toast = useToast()
  const act = async (done: () => Promise<unknown>, said: string) =>
    attempt(async () => {
      await done()
      toast(said)
    })
  if (invitations.length === 0) return null
  return (
    <section>
      <h2>{t('invitedHead')}</h2>
      <table className="plain-table as-cards">
        <thead>
          <tr>
            <th scope="col">{t('eMailAddress')}</th>
            <th scope="col">{t('willBe')}</th>
            <th scope="col">{t('invitedHead')}</th>
            <th scope="col">
              <span className="visually-hidden">{t('acts')}</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {invitations.map((invitation) => (
            <tr key={invitation.id}>
              <th scope="row">{invitation.email}</th>
              <td data-label={t('willBe')}>
                <Roles isAdministrator={invitation.isAdministrator} roles={invitation.roles} calendars={calendars} />
              </td>
              <td data-label={t('invitedHead')}>
                {t('invitedAgo', { ago: sayAgo(invitation.invitedAt), invitedBy: invitation.invitedBy })}
                {invitation.isExpired && <span className="remark"> {t('tooOldByNowSend')}</span>}
              </td>
              <td className="row-links">
                <button
                  type="button"
                  className="as-link"
                  onClick={() =>
                    act(
                      () => write('POST', `/people/invitations/${invitation.id}/again`),
                      t('aNewMailIsOn', { email: invitation.email }),
                    )
                  }
                >
                  {t.rich('sendAgainToEmail', { email: invitation.email }, <span className="visually-hidden" />)}
                </button>
                <button
                  type="button"
                  className="as-link is-brick"
                  onClick={() =>
                    act(
                      () => write('DELETE', `/people/invitations/${invitation.id}`),
                      t('theInvitationOfEmailIs', { email: invitation.email }),
                    )
                  }
                >
                  {t.rich('withdrawTheInvitationOfEmail', { email: invitation.email }, <span className="visually-hidden" />)}
                </button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  )
}
