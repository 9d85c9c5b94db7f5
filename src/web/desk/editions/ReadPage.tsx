import { Link, useParams } from 'react-router'
import { apiAddress } from '../api'
import { Copyable } from '../calendars/Copyable'
import { NothingHere } from '../NothingHere'
import { useEditionLink, useEditions } from './queries'
import { SecretActs, type SecretWords } from '../SecretActs'
import { useSeenAs } from '../seeAs'
import { t } from './words'

/** An edition for members, read where they are signed in; and each member's own address of it. */
export function ReadPage() {
  const { id = '' } = useParams()
  const editions = useEditions()
  const isOwnView = useSeenAs() === null
  const edition = editions.data?.find((one) => one.id === id)
  if (editions.data && !edition) return <NothingHere />
  if (!edition) return <p className="page">{t('opening')}</p>
  return (
    <main className="page">
      <p className="soft crumbs">
        <Link to="/editions">{t('editions')}</Link> › {edition.name}
      </p>
      <h1 className="visually-hidden">{edition.name}</h1>
      <iframe className="reading-frame" src={apiAddress(`/editions/${id}/page`)} title={edition.name} />
      {isOwnView && edition.mayRead && <OwnAddress id={id} />}
    </main>
  )
}

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

function OwnAddress({ id }: { id: string }) {
  const link = useEditionLink(id)
  return (
    <section className="own-address">
      <h2>{t('inYourOwnCalendarProgram')}</h2>
      <p className="soft">{t('anAddressThatIsYours')}</p>
      {link.data?.feed && (
        <Copyable name={t('yourFeedLink')} button={t('copyYourFeedLink')} text={link.data.feed}>
          {t('giveItToYourOwn')}
        </Copyable>
      )}
      {link.data && <SecretActs path={`/editions/${id}/link`} isThere={link.data.feed !== null} words={words} />}
    </section>
  )
}
