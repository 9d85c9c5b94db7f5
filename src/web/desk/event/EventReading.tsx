import { Link } from 'react-router'
import { addDays, placeOfZone, type Day } from '../../shared/days'
import { OutwardLinks } from '../../shared/OutwardLinks'
import { Plate } from '../../shared/Plate'
import { sayTime, sayWhen } from '../../shared/slips'
import { apiAddress, call, type Calendar, type Happening } from '../api'
import { useUndo } from '../changes/Changes'
import { useOrganisation, useRefresh } from '../queries'
import { useToast } from '../Toasts'
import { saySize } from './MoreFields'

/** An event for those who may not change it, or one that was removed. */
export function EventReading({ happening, calendars }: { happening: Happening; calendars: Calendar[] }) {
  const calendar = calendars.find((one) => one.id === happening.calendarId)
  const { locale } = useOrganisation()
  const refresh = useRefresh()
  const toast = useToast()
  const restore = async () => {
    try {
      await call('POST', `/bin/${happening.id}/restore?version=${happening.version}`)
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
      {happening.subtitle && <p>{happening.subtitle}</p>}
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
      {happening.recurs && (
        <p>
          This date:{' '}
          {sayWhen(
            {
              start: moment(happening.date, happening.from),
              end: moment(endOf(happening), happening.to),
              allDay: happening.allDay,
            },
            locale,
          )}
        </p>
      )}
      {happening.onCalendarClock && (
        <p className="soft">
          {placeOfZone(happening.zone)} time. {sayTime({ ...happening.onCalendarClock, allDay: false })} in{' '}
          {placeOfZone(happening.onCalendarClock.zone)}.
        </p>
      )}
      {happening.state === 'cancelled' && <p className="notice">It is cancelled.</p>}
      {happening.place && <p>{happening.place}</p>}
      {(happening.category || happening.tags.length > 0) && (
        <p className="soft">
          {[happening.category?.name, ...happening.tags.map((tag) => `#${tag}`)].filter(Boolean).join(' · ')}
        </p>
      )}
      <OutwardLinks
        className="plain-list"
        links={[
          ...happening.links.map(({ url, label }) => ({ address: url, label })),
          ...happening.attached.map(({ id, name, size }) => ({
            address: apiAddress(`/files/${id}`),
            label: name,
            about: saySize(size),
          })),
        ]}
      />
      {happening.contact && <p>Contact: {happening.contact}</p>}
      <TakeOff happening={happening} calendars={calendars} />
      {happening.description && <div className="rich-text" dangerouslySetInnerHTML={{ __html: happening.description }} />}
    </main>
  )
}

/** Calendars of one's own on which somebody else's event is shown: it can be taken off there. */
function TakeOff({ happening, calendars }: { happening: Happening; calendars: Calendar[] }) {
  const refresh = useRefresh()
  const toast = useToast()
  const undo = useUndo()
  const placed = calendars.filter((calendar) => calendar.mayEdit && happening.placements.includes(calendar.id))
  if (placed.length === 0) return null
  const takeOff = async (calendar: Calendar) => {
    try {
      const done = await call<{ actId: string }>('DELETE', `/events/${happening.id}/placements/${calendar.id}`)
      await refresh.event(happening.id)
      await refresh.everything()
      toast(`“${happening.title}” is not shown on ${calendar.name} any more.`, () => void undo(done.actId))
    } catch (failed) {
      toast(failed instanceof Error ? failed.message : String(failed))
    }
  }
  return placed.map((calendar) => (
    <p key={calendar.id}>
      <Plate code={calendar.plate} colour={calendar.colour} size="small" /> It is placed on {calendar.name}.{' '}
      <button type="button" className="btn btn-outline-ink" onClick={() => takeOff(calendar)}>
        Take it off {calendar.name}
      </button>
    </p>
  ))
}

function moment(day: Day, time: string | null): string {
  return time ? `${day}T${time}` : day
}

/** Exclusive for whole days, as slips have it. */
function endOf(happening: Happening): Day {
  return happening.allDay ? addDays(happening.endDate, 1) : happening.endDate
}
