import { Copyable } from '../calendars/Copyable'
import { SecretActs, type SecretWords } from '../SecretActs'
import { OtherForms } from './OtherForms'
import { useOwnLink, type OwnLinkPath } from './queries'
import { t } from './words'

const words: SecretWords = {
  make: t('makeMyOwnAddress'),
  made: t('youHaveAnAddressOf'),
  ifReplaced: t('theOldAddressStopsWorkingAt'),
  doReplace: t('replaceTheAddress'),
  replaced: t('yourAddressWasReplacedThe'),
  ifWithdrawn: t('theAddressStopsWorkingAt'),
  doWithdraw: t('withdrawTheAddress'),
  withdrawn: t('yourAddressWasWithdrawn'),
}

/** A member's own address of something: to copy, to replace, to withdraw. */
export function OwnAddress({ path }: { path: OwnLinkPath }) {
  const link = useOwnLink(path).data
  if (!link) return null
  return (
    <>
      {link.feed && (
        <Copyable name={t('yourFeedLink')} button={t('copyYourFeedLink')} text={link.feed}>
          {t('giveItToYourOwn')}
        </Copyable>
      )}
      {link.feed && <OtherForms feed={link.feed} />}
      {link.page && (
        <p>
          <a href={link.page} target="_blank" rel="noreferrer">
            {t('lookAtItAsAPage')}
          </a>
        </p>
      )}
      <SecretActs path={path} isThere={link.feed !== null} words={words} />
    </>
  )
}
