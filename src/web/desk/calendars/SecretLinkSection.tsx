import { Link } from 'react-router'
import type { Calendar } from '../types'
import { sayAgo } from '../Delivery'
import { detailSaid } from '../openness'
import { useSecretLink } from './queries'
import { SecretActs, type SecretWords } from '../SecretActs'
import { Copyable } from './Copyable'
import { t } from './words'

const words: SecretWords = {
  make: t('makeASecretLink'),
  made: t('thereIsASecretLink'),
  ifReplaced: t('theOldAddressStopsWorking'),
  doReplace: t('replaceTheLink'),
  replaced: t('thereIsANewSecret'),
  ifWithdrawn: t('theAddressStopsWorkingAt'),
  doWithdraw: t('withdrawTheLink'),
  withdrawn: t('theSecretLinkIsWithdrawn'),
}

/** The secret address of a calendar: made, copied, replaced and withdrawn. */
export function SecretLinkSection({ calendar }: { calendar: Calendar }) {
  const link = useSecretLink(calendar.id)
  if (!link.data) return null
  const { page, feed, madeAt, showsNothing } = link.data
  return (
    <section>
      <h2>{t('forThoseWhoHaveThe')}</h2>
      <p className="soft">
        {t('whoeverHasThisAddressSees', {
          name: calendar.name,
          detail: detailSaid[calendar.disclosure.link],
        })}
      </p>
      {showsNothing && (
        <p className="notice">
          {t('nameShowsPeopleWithThe', { name: calendar.name })}{' '}
          {calendar.mayManage ? <Link to="/calendars">{t('showThemSomething')}</Link> : t('anAdministratorCanShowThem')}
        </p>
      )}
      {page && feed && madeAt && (
        <>
          <Copyable name={t('secretPageLink')} button={t('copyTheSecretLink')} text={page}>
            {t('madeAgoSendItOnly', { ago: sayAgo(madeAt) })}
          </Copyable>
          <Copyable name={t('secretFeedLink')} button={t('copyTheSecretFeed')} text={feed}>
            {t('theSameForCalendarPrograms')}
          </Copyable>
        </>
      )}
      <SecretActs path={`/calendars/${calendar.id}/link`} isThere={page !== null} words={words} />
    </section>
  )
}
