import { Link } from 'react-router'
import { planOn } from '../lastPlan'
import { addDays, placeOfZone, type Day } from '../../shared/days'
import { linkName } from '../../shared/links'
import { OutwardLinks } from '../../shared/OutwardLinks'
import { Plate } from '../../shared/Plate'
import { apiAddress } from '../api'
import type { Calendar, CalendarEvent } from '../types'
import { useUndo } from '../changes/Changes'
import { useRefresh } from '../refresh'
import { useAttempt, useWrite } from '../useWrite'
import { useOrganisation } from '../session/queries'
import { useToast } from '../Toasts'
import { sayTime, sayWhen } from '../times'
import { parts as partNames } from './PeopleField'
import { linkKinds } from './MoreFields'
import { saySize } from './FilesField'
import { t } from './words'

/** An event for those who may not change it, or one that was removed. */
export function EventReading({ calendarEvent, calendars }: { calendarEvent: CalendarEvent; calendars: Calendar[] }) {
  const calendar = calendars.find((one) => one.id === calendarEvent.calendarId)
  const { locale } = useOrganisation()
  const refresh = useRefresh()
  const write = useWrite()
  const attempt = useAttempt()
  const toast = useToast()
  const restore = () =>
    attempt(async () => {
      await write('POST', `/bin/${calendarEvent.id}/restore?version=${calendarEvent.version}`)
      await refresh.event(calendarEvent.id)
      toast(t('titleIsBack', { title: calendarEvent.title }))
    })
  return (
    <main className="page event-reading">
      <p className="soft">
        <Link to={planOn(null)}>{t('plan')}</Link> › {calendar?.name}
      </p>
      <h1>{calendarEvent.title}</h1>
      {calendarEvent.subtitle && <p>{calendarEvent.subtitle}</p>}
      {calendarEvent.isRemoved && (
        <p className="notice" role="status">
          {t('thisEventWasRemoved')}{' '}
          <button type="button" className="btn btn-outline-ink" onClick={restore}>
            {t('restoreIt')}
          </button>
        </p>
      )}
      <p>
        {calendar && <Plate code={calendar.plate} colour={calendar.colour} />} {calendarEvent.words}
      </p>
      {calendarEvent.recurs && (
        <p>
          {t('thisDateWhen', {
            when: sayWhen(
              {
                start: moment(calendarEvent.date, calendarEvent.from),
                end: moment(endOf(calendarEvent), calendarEvent.to),
                allDay: calendarEvent.allDay,
              },
              locale,
            ),
          })}
        </p>
      )}
      {calendarEvent.onCalendarClock && (
        <p className="soft">
          {t('zoneTimeAndOther', {
            zone: placeOfZone(calendarEvent.zone),
            time: sayTime({ ...calendarEvent.onCalendarClock, allDay: false }),
            other: placeOfZone(calendarEvent.onCalendarClock.zone),
          })}
        </p>
      )}
      {calendarEvent.state === 'cancelled' && <p className="notice">{t('itIsCancelled')}</p>}
      {calendarEvent.place && <p>{calendarEvent.place}</p>}
      {(calendarEvent.category || calendarEvent.tags.length > 0) && (
        <p className="soft">
          {[calendarEvent.category?.name, ...calendarEvent.tags.map((tag) => `#${tag}`)].filter(Boolean).join(' · ')}
        </p>
      )}
      <OutwardLinks
        className="plain-list"
        links={[
          ...calendarEvent.links.map((link) => ({ address: link.url, label: linkName(link, linkKinds) })),
          ...calendarEvent.attached.map(({ id, name, size }) => ({
            address: apiAddress(`/files/${id}`),
            label: name,
            about: saySize(size),
          })),
        ]}
      />
      {calendarEvent.people.map((one) => (
        <p key={`${one.memberId ?? ''}${one.name}`}>
          {one.name} ({partNames[one.part ?? 'leads']}
          {one.from && ` ${one.from.slice(0, 5)}`}
          {one.to && `–${one.to.slice(0, 5)}`})
        </p>
      ))}
      {calendarEvent.contact && <p>{t('contactIs', { contact: calendarEvent.contact })}</p>}
      <TakeOff calendarEvent={calendarEvent} calendars={calendars} />
      {calendarEvent.description && <div className="rich-text" dangerouslySetInnerHTML={{ __html: calendarEvent.description }} />}
    </main>
  )
}

/** Calendars of one's own on which somebody else's event is shown: it can be taken off there. */
function TakeOff({ calendarEvent, calendars }: { calendarEvent: CalendarEvent; calendars: Calendar[] }) {
  const refresh = useRefresh()
  const write = useWrite()
  const attempt = useAttempt()
  const toast = useToast()
  const undo = useUndo()
  const placed = calendars.filter((calendar) => calendar.mayEdit && calendarEvent.placements.includes(calendar.id))
  if (placed.length === 0) return null
  const takeOff = (calendar: Calendar) =>
    attempt(async () => {
      const done = await write('DELETE', `/events/${calendarEvent.id}/placements/${calendar.id}`)
      await refresh.event(calendarEvent.id)
      toast(t('titleIsNotShownOn', { title: calendarEvent.title, name: calendar.name }), () => undo(done.actId))
    })
  return placed.map((calendar) => (
    <p key={calendar.id}>
      <Plate code={calendar.plate} colour={calendar.colour} size="small" /> {t('itIsPlacedOnName', { name: calendar.name })}{' '}
      <button type="button" className="btn btn-outline-ink" onClick={() => takeOff(calendar)}>
        {t('takeItOffName', { name: calendar.name })}
      </button>
    </p>
  ))
}

function moment(day: Day, time: string | null): string {
  return time ? `${day}T${time}` : day
}

/** Exclusive for whole days, as slips have it. */
function endOf(calendarEvent: CalendarEvent): Day {
  return calendarEvent.allDay ? addDays(calendarEvent.endDate, 1) : calendarEvent.endDate
}
