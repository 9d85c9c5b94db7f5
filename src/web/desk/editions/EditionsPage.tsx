import { Link } from 'react-router'
import { Plate } from '../../shared/Plate'
import type { EditionLine } from '../types'
import { DeliveryLine } from '../Delivery'
import { useCalendars } from '../calendars/queries'
import { TargetList } from '../elsewhere/TargetList'
import { useEditions } from './queries'
import { DeliveriesLink } from '../deliveries/DeliveriesLink'
import { ProofLink } from '../proof/ProofLink'
import { useSeenAs } from '../seeAs'
import { t } from './words'

export const audienceWords: Record<EditionLine['audience'], string> = {
  editors: t('editors'),
  members: t('members'),
  link: t('thoseWithTheLink'),
  everyone: t('everyone'),
}

export const viewWords: Record<EditionLine['view'], string> = {
  month: t('month'),
  week: t('week'),
  day: t('day'),
  list: t('list'),
  cards: t('cards'),
  smallMonth: t('smallMonth'),
}

/** What goes out to whom: composed editions, and the standard one of each calendar. */
export function EditionsPage() {
  const editions = useEditions()
  const isOwnView = useSeenAs() === null
  const mayCompose = (useCalendars().data ?? []).some((calendar) => calendar.mayPublish) && isOwnView
  if (editions.error)
    return (
      <main className="page">
        <p className="notice" role="alert">
          {editions.error.message}
        </p>
      </main>
    )
  if (!editions.data) return <p className="page">{t('opening')}</p>
  const composed = editions.data.filter((edition) => !edition.isStandard)
  const standard = editions.data.filter((edition) => edition.isStandard)
  return (
    <main className="page">
      <div className="page-head">
        <h1>{t('editions')}</h1>
        <span className="soft">{t('whatEachReadershipGetsFrom')}</span>
        <span className="stretch" />
        {mayCompose && (
          <Link className="btn btn-spruce" to="/editions/new">
            {t('newEdition')}
          </Link>
        )}
      </div>
      {isOwnView && (
        <p>
          <Link to="/needs">{t('whatNeedsYou')}</Link>
        </p>
      )}
      {composed.length === 0 ? (
        <p className="empty">
          {t('noEditionJoinsSeveralCalendars')} {mayCompose ? t('beginWithNewEdition') : t('anEditorCanMakeOne')}
        </p>
      ) : (
        <EditionTable editions={composed} />
      )}
      {standard.length > 0 && (
        <section className="standard-editions">
          <h2>{t('oneForEachCalendar')}</h2>
          <p className="soft">{t('everyCalendarHasAnEdition')}</p>
          <EditionTable editions={standard} />
        </section>
      )}
      {isOwnView && <TargetList />}
    </main>
  )
}

function EditionTable({ editions }: { editions: EditionLine[] }) {
  return (
    <div className="table-scroll">
      <table className="plain-table editions-table as-cards">
        <thead>
          <tr>
            <th scope="col">{t('edition')}</th>
            <th scope="col">{t('from')}</th>
            <th scope="col">{t('for')}</th>
            <th scope="col">{t('opensAs')}</th>
            <th scope="col">{t('goneOut')}</th>
            <th scope="col">{t('whoHasIt')}</th>
            <th scope="col">{t('proof')}</th>
            <th scope="col">
              <span className="visually-hidden">{t('waysOn')}</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {editions.map((edition) => (
            <tr key={edition.id}>
              <th scope="row">{edition.name}</th>
              <td data-label={t('from')}>
                <span className="plates">
                  {edition.sources.map((source) => (
                    <Plate key={source.plate} code={source.plate} colour={source.colour} size="small" />
                  ))}
                </span>
              </td>
              <td data-label={t('for')}>{edition.isStandard ? t('asTheCalendar') : audienceWords[edition.audience]}</td>
              <td data-label={t('opensAs')}>{viewWords[edition.view]}</td>
              <td data-label={t('goneOut')}>
                {edition.isInTheMaking ? <b>{t('inTheMaking')}</b> : <DeliveryLine delivery={edition.freshness} />}
              </td>
              <td data-label={t('whoHasIt')}>
                {edition.mayEdit && !edition.isInTheMaking && <DeliveriesLink edition={edition} />}
              </td>
              <td data-label={t('proof')}>{edition.mayEdit && <ProofLink edition={edition} />}</td>
              <td className="row-links">
                {edition.mayEdit && (
                  <Link to={`/editions/${edition.id}`}>
                    {t.rich('composeName', { name: edition.name }, <span className="visually-hidden" />)}
                  </Link>
                )}
                {edition.mayRead && (
                  <Link to={`/editions/${edition.id}/read`}>
                    {t.rich('readName', { name: edition.name }, <span className="visually-hidden" />)}
                  </Link>
                )}
                {edition.isStandard && edition.calendarId && (
                  <Link to={`/calendars/${edition.calendarId}/publishing`}>
                    {t.rich('publishName', { name: edition.name }, <span className="visually-hidden" />)}
                  </Link>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  )
}
