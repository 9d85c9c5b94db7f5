import { Link } from 'react-router'
import { Plate } from '../../shared/Plate'
import type { Calendar } from '../api'
import { DeliveryLine } from '../Delivery'
import { Level } from '../Level'
import { audiences, levelsOf } from '../openness'
import { useCalendars, useSession } from '../queries'

/** Calendars against audiences: who sees how much of each. */
export function CalendarsPage() {
  const calendars = useCalendars()
  const isAdministrator = useSession().data?.person?.isAdministrator ?? false
  return (
    <main className="page">
      <div className="page-head">
        <h1>Calendars</h1>
        <span className="soft">who sees how much of each; a wider audience never sees more than a narrower one</span>
        <span className="stretch" />
        {isAdministrator && (
          <Link className="btn btn-spruce" to="/calendars/new">
            New calendar
          </Link>
        )}
      </div>
      {calendars.error && (
        <p className="notice" role="alert">
          {calendars.error.message}
        </p>
      )}
      {calendars.data?.length === 0 && (
        <p className="empty">
          {isAdministrator ? 'There is no calendar yet. Make the first one.' : 'There is no calendar that you may see yet.'}
        </p>
      )}
      {calendars.data && calendars.data.length > 0 && <Table calendars={calendars.data} />}
    </main>
  )
}

function Table({ calendars }: { calendars: Calendar[] }) {
  return (
    <div className="table-scroll" tabIndex={0} role="region" aria-label="Calendars and who sees them">
      <table className="audiences">
        <thead>
          <tr>
            <th scope="col">Calendar</th>
            {audiences.map(({ key, name, about }) => (
              <th key={key} scope="col">
                {name}
                <small>{about}</small>
              </th>
            ))}
            <th scope="col" className="number">
              Events
            </th>
            <th scope="col">Gone out</th>
            <th scope="col">
              <span className="visually-hidden">Screens</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {calendars.map((calendar) => (
            <tr key={calendar.id}>
              <th scope="row">
                <Plate code={calendar.plate} colour={calendar.colour} /> {calendar.name}
              </th>
              {levelsOf(calendar.disclosure).map(({ audience, detail }) => (
                <td key={audience}>
                  <Level detail={detail} />
                </td>
              ))}
              <td className="number">{calendar.events ?? '–'}</td>
              <td>
                <DeliveryLine delivery={calendar.delivery} />
              </td>
              <td className="row-links">
                {calendar.mayManage && (
                  <Link to={`/calendars/${calendar.id}`} aria-label={`Settings of ${calendar.name}`}>
                    Settings
                  </Link>
                )}
                {calendar.mayEdit && (
                  <Link to={`/calendars/${calendar.id}/publishing`} aria-label={`Publish ${calendar.name}`}>
                    Publish
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
