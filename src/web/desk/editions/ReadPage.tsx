import { Link, useParams } from 'react-router'
import { apiAddress } from '../api'
import { NothingHere } from '../NothingHere'
import { OwnAddress } from './OwnAddress'
import { useEditions } from './queries'
import { useSeenAs } from '../seeAs'
import { TakeAlong } from './TakeAlong'
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
      <TakeAlong id={id} />
      {isOwnView && edition.mayRead && (
        <section className="own-address">
          <h2>{t('inYourOwnCalendarProgram')}</h2>
          <p className="soft">{t('anAddressThatIsYours')}</p>
          <OwnAddress path={`/editions/${id}/link`} />
        </section>
      )}
    </main>
  )
}
