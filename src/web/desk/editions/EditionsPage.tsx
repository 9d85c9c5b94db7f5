import { Link } from 'react-router'
import { Plate } from '../../shared/Plate'
import type { EditionLine } from '../api'
import { DeliveryLine } from '../Delivery'
import { useCalendars, useEditions } from '../queries'
import { useSeenAs } from '../seeAs'

export const audienceWords: Record<EditionLine['audience'], string> = {
  editors: 'editors',
  members: 'members',
  link: 'those with the link',
  everyone: 'everyone',
}

export const viewWords: Record<EditionLine['view'], string> = {
  month: 'month',
  week: 'week',
  day: 'day',
  list: 'list',
  cards: 'cards',
  smallMonth: 'small month',
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
  if (!editions.data) return <p className="page">Opening …</p>
  const composed = editions.data.filter((edition) => !edition.isStandard)
  const standard = editions.data.filter((edition) => edition.isStandard)
  return (
    <main className="page">
      <div className="page-head">
        <h1>Editions</h1>
        <span className="soft">what each readership gets, from which calendars, and how it looks</span>
        <span className="stretch" />
        {mayCompose && (
          <Link className="btn btn-spruce" to="/editions/new">
            New edition
          </Link>
        )}
      </div>
      {composed.length === 0 ? (
        <p className="empty">
          No edition joins several calendars yet. A family with two children wants one page with both classes and the school’s
          dates:
          {mayCompose ? ' begin with “New edition”.' : ' an editor can make one.'}
        </p>
      ) : (
        <EditionTable editions={composed} />
      )}
      {standard.length > 0 && (
        <section className="standard-editions">
          <h2>One for each calendar</h2>
          <p className="soft">Every calendar has an edition of its own, as open as the calendar is.</p>
          <EditionTable editions={standard} />
        </section>
      )}
    </main>
  )
}

function EditionTable({ editions }: { editions: EditionLine[] }) {
  return (
    <div className="table-scroll">
      <table className="plain-table editions-table">
        <thead>
          <tr>
            <th scope="col">Edition</th>
            <th scope="col">From</th>
            <th scope="col">For</th>
            <th scope="col">Opens as</th>
            <th scope="col">Gone out</th>
            <th scope="col">Fetched this week by</th>
            <th scope="col">
              <span className="visually-hidden">Ways on</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {editions.map((edition) => (
            <tr key={edition.id}>
              <th scope="row">{edition.name}</th>
              <td>
                <span className="plates">
                  {edition.sources.map((source) => (
                    <Plate key={source.plate} code={source.plate} colour={source.colour} size="small" />
                  ))}
                </span>
              </td>
              <td>{edition.isStandard ? 'as the calendar' : audienceWords[edition.audience]}</td>
              <td>{viewWords[edition.view]}</td>
              <td>
                <DeliveryLine delivery={edition.freshness} />
              </td>
              <td>{edition.fetchedBy === 0 ? '–' : edition.fetchedBy === 1 ? '1 program' : `${edition.fetchedBy} programs`}</td>
              <td className="row-links">
                {edition.mayEdit && (
                  <Link to={`/editions/${edition.id}`}>
                    Compose<span className="visually-hidden"> {edition.name}</span>
                  </Link>
                )}
                {edition.mayRead && (
                  <Link to={`/editions/${edition.id}/read`}>
                    Read<span className="visually-hidden"> {edition.name}</span>
                  </Link>
                )}
                {edition.isStandard && edition.calendarId && (
                  <Link to={`/calendars/${edition.calendarId}/publishing`}>
                    Publish<span className="visually-hidden"> {edition.name}</span>
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
