import { sayDay } from '../../shared/days'
import { Plate } from '../../shared/Plate'
import { call, type Binned } from '../api'
import { useUndo } from '../changes/Changes'
import { sayAgo } from '../Delivery'
import { useBin, useCalendarBin, useCalendars, useOrganisation, useRefresh, useSession } from '../queries'
import { useToast } from '../Toasts'

/** What was removed rests here for 90 days. */
export function BinPage() {
  const { locale } = useOrganisation()
  const bin = useBin()
  const calendars = useCalendars().data ?? []
  const refresh = useRefresh()
  const toast = useToast()
  const undo = useUndo()
  const restore = async (one: Binned) => {
    try {
      const done = await call<{ actId: string }>('POST', `/bin/${one.id}/restore?version=${one.version}`)
      await refresh.everything()
      toast(`“${one.title}” is back.`, () => void undo(done.actId))
    } catch (failed) {
      toast(failed instanceof Error ? failed.message : String(failed))
    }
  }
  const isAdministrator = useSession().data?.person?.isAdministrator ?? false
  return (
    <main className="page">
      <h1>Bin</h1>
      <p className="soft">What is removed rests here for 90 days, then it is gone for good.</p>
      {bin.error && (
        <p className="notice" role="alert">
          {bin.error.message}
        </p>
      )}
      {bin.data?.length === 0 && <p className="empty">The bin is empty.</p>}
      {isAdministrator && <BinnedCalendars />}
      {bin.data && bin.data.length > 0 && (
        <table className="plain-table">
          <thead>
            <tr>
              <th scope="col">Event</th>
              <th scope="col">When</th>
              <th scope="col">Removed</th>
              <th scope="col">Gone for good</th>
              <th scope="col">
                <span className="visually-hidden">Restore</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {bin.data.map((one) => {
              const calendar = calendars.find((calendar) => calendar.id === one.calendarId)
              return (
                <tr key={one.id}>
                  <td>
                    {calendar && <Plate code={calendar.plate} colour={calendar.colour} size="small" />} <b>{one.title}</b>
                  </td>
                  <td>{one.words}</td>
                  <td>
                    {sayAgo(one.removedAt)} by {one.by}
                  </td>
                  <td>{sayDay(one.goneAt.slice(0, 10), locale, { day: 'numeric', month: 'long', year: 'numeric' })}</td>
                  <td>
                    <button type="button" className="btn btn-outline-ink" onClick={() => restore(one)}>
                      Restore
                    </button>
                  </td>
                </tr>
              )
            })}
          </tbody>
        </table>
      )}
    </main>
  )
}

/** Whole calendars, with all that they held. */
function BinnedCalendars() {
  const { locale } = useOrganisation()
  const binned = useCalendarBin(true).data ?? []
  const refresh = useRefresh()
  const toast = useToast()
  const restore = async (id: string, name: string) => {
    try {
      await call('POST', `/calendars/${id}/restore`)
      await refresh.everything()
      toast(`${name} is back, with its events and addresses.`)
    } catch (failed) {
      toast(failed instanceof Error ? failed.message : String(failed))
    }
  }
  if (binned.length === 0) return null
  return (
    <section>
      <h2>Calendars</h2>
      <ul className="plain-list">
        {binned.map((calendar) => (
          <li key={calendar.id}>
            <Plate code={calendar.plate} colour={calendar.colour} size="small" /> <b>{calendar.name}</b>{' '}
            <span className="soft">
              removed {sayAgo(calendar.removedAt)}, gone for good{' '}
              {sayDay(calendar.goneAt.slice(0, 10), locale, { day: 'numeric', month: 'long', year: 'numeric' })}
            </span>
            <button type="button" className="btn btn-outline-ink" onClick={() => restore(calendar.id, calendar.name)}>
              Restore<span className="visually-hidden"> {calendar.name}</span>
            </button>
          </li>
        ))}
      </ul>
    </section>
  )
}
