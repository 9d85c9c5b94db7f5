import { useState } from 'react'
import type { AuditLine } from '../types'
import { useAudit } from './queries'
import { useOrganisation } from '../session/queries'
import { t } from './words'

const said: Record<AuditLine['act'], string> = {
  opened: t('opened'),
  closed: t('closed'),
  calendarMade: t('madeTheCalendar'),
  calendarArchived: t('archived'),
  calendarRestored: t('broughtBack'),
  calendarRemoved: t('removedTheCalendar'),
  calendarMerged: t('merged'),
  editionMade: t('madeAnEdition'),
  editionChanged: t('changedAnEdition'),
  editionLetOut: t('letAnEditionOut'),
  editionRemoved: t('removedAnEdition'),
  fileReplaced: t('replacedAFile'),
  editionRestored: t('broughtBackAnEdition'),
  linkMade: t('madeASecretLinkFor'),
  linkReplaced: t('replacedTheSecretLinkOf'),
  linkWithdrawn: t('withdrewTheSecretLinkOf'),
  invited: t('invited'),
  invitationWithdrawn: t('withdrewTheInvitationOf'),
  invitationAccepted: t('acceptedTheInvitationTo'),
  rolesChanged: t('changedTheRolesOf'),
  personRemoved: t('removed'),
  passwordReset: t('setANewPasswordFor'),
  signedOutEverywhere: t('signedOutEverywhere'),
  approved: t('letGoOut'),
  sentBack: t('sentBack'),
  listChanged: t('changedOnAList'),
  sourceFollowed: t('followedASource'),
  sourceChanged: t('changedASource'),
  sourceLeft: t('leftASource'),
  writtenElsewhere: t('writesElsewhere'),
  elsewhereChanged: t('changedElsewhere'),
  elsewhereLeft: t('leftElsewhere'),
  archiveTaken: t('tookTheArchive'),
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
        <label htmlFor="audit-act">{t('show')}</label>
        <select id="audit-act" className="form-select" value={act} onChange={(event) => setAct(event.target.value)}>
          <option value="">{t('everything')}</option>
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
      {audit.data && lines.length === 0 && <p className="empty">{t('nothingOfThatKindWas')}</p>}
      {lines.length > 0 && (
        <table className="plain-table">
          <thead>
            <tr>
              <th scope="col">{t('when')}</th>
              <th scope="col">{t('who')}</th>
              <th scope="col">{t('what')}</th>
              <th scope="col">{t('more')}</th>
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
          {t('olderOnes')}
        </button>
      )}
    </>
  )
}
