import { useParams, useSearchParams } from 'react-router'
import { todayIn } from '../../shared/days'
import { NothingHere } from '../NothingHere'
import { useCalendars, useEvent, useOrganisation } from '../queries'
import { draftOf, newDraft } from './draft'
import { EventPage } from './EventPage'
import { EventReading } from './EventReading'

/** Opens the event page for what the address names: an event, or a new one on a calendar and day. */
export function EventRoute() {
  const { id } = useParams()
  const [parameters] = useSearchParams()
  const { zone } = useOrganisation()
  const calendars = useCalendars().data
  const stored = useEvent(id)
  if (stored.isError) return <NothingHere detail={stored.error.message} />
  if (!calendars || (id && !stored.data)) return <p className="page">Opening …</p>
  if (id && stored.data) {
    if (!stored.data.mayEdit || stored.data.isRemoved) return <EventReading happening={stored.data} calendars={calendars} />
    return <EventPage key={id} calendars={calendars} stored={stored.data} draft={draftOf(stored.data)} />
  }
  const editable = calendars.filter((calendar) => calendar.mayEdit)
  const chosen = editable.find((calendar) => calendar.id === parameters.get('calendar')) ?? editable[0]
  if (!chosen) return <NothingHere detail="There is no calendar on which you can make events." />
  const day = parameters.get('day') ?? todayIn(zone)
  return <EventPage key={parameters.toString()} calendars={calendars} stored={null} draft={newDraft(chosen.id, day)} />
}
