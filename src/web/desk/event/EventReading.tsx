import { Link } from 'react-router'
import { Plate } from '../../shared/Plate'
import { call, type Calendar, type Happening } from '../api'
import { useRefresh } from '../queries'
import { useToast } from '../Toasts'

/** An event for those who may not change it, or one that was removed. */
export function EventReading({ happening, calendars }: { happening: Happening; calendars: Calendar[] }) {
  const calendar = calendars.find((one) => one.id === happening.calendarId)
  const refresh = useRefresh()
  const toast = useToast()
  const restore = async () => {
    try {
      await call('POST', `/events/${happening.id}/restore?version=${happening.version}`)
      await refresh.event(happening.id)
      await refresh.everything()
      toast(`“${happening.title}” is back.`)
    } catch (failed) {
      toast(failed instanceof Error ? failed.message : String(failed))
    }
  }
  return (
    <main className="page event-reading">
      <p className="soft">
        <Link to="/plan">Plan</Link> › {calendar?.name}
      </p>
      <h1>{happening.title}</h1>
      {happening.isRemoved && (
        <p className="notice" role="status">
          This event was removed.{' '}
          <button type="button" className="btn btn-outline-ink" onClick={restore}>
            Restore it
          </button>
        </p>
      )}
      <p>
        {calendar && <Plate code={calendar.plate} colour={calendar.colour} />} {happening.words}
      </p>
      {happening.place && <p>{happening.place}</p>}
      {happening.description && <div className="rich-text" dangerouslySetInnerHTML={{ __html: happening.description }} />}
    </main>
  )
}
