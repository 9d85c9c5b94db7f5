import { useParams, useSearchParams } from 'react-router'
import { todayIn } from '../../shared/days'
import { NothingHere } from '../NothingHere'
import { useCalendars } from '../calendars/queries'
import { useEvent, useTemplates } from './queries'
import { useOrganisation } from '../session/queries'
import { useLine } from '../several/queries'
import { useProposal } from '../signoff/queries'
import { draftOf, draftOfCopy, draftOfProposal, draftOfRequest, draftOfTemplate, newDraft, withUsual } from './draft'
import { EventPage } from './EventPage'
import { EventReading } from './EventReading'
import { LinePage } from './LinePage'
import { t } from './words'

/** Opens the event page for what the address names: a date of an event, or a new one on a calendar and day, or from a line of text. */
export function EventRoute() {
  const { id } = useParams()
  return id ? <StoredEvent id={id} /> : <NewEvent />
}

function StoredEvent({ id }: { id: string }) {
  const [parameters] = useSearchParams()
  const submission = parameters.get('submission')
  const proposal = useProposal(submission)
  const date = proposal.data?.recurrenceId ?? parameters.get('date')
  const calendars = useCalendars().data
  const stored = useEvent(submission && !proposal.data ? undefined : id, date)
  if (proposal.isError) return <NothingHere detail={proposal.error.message} />
  if (stored.isError) return <NothingHere detail={stored.error.message} />
  if (!calendars || !stored.data) return <p className="page">{t('opening')}</p>
  if (!stored.data.mayEdit || stored.data.isRemoved) return <EventReading calendarEvent={stored.data} calendars={calendars} />
  return (
    <EventPage
      key={`${id} ${date} ${stored.data.version} ${submission}`}
      calendars={calendars}
      stored={stored.data}
      draft={proposal.data?.event ? draftOfProposal(proposal.data.event, stored.data) : draftOf(stored.data)}
      proposal={proposal.data}
    />
  )
}

function NewEvent() {
  const [parameters] = useSearchParams()
  const { zone } = useOrganisation()
  const day = parameters.get('day') ?? todayIn(zone)
  const text = parameters.get('line')
  const calendars = useCalendars().data
  const isForm = parameters.has('form')
  const line = useLine(isForm ? text : null)
  const copied = parameters.get('copy')
  const templates = useTemplates(true)
  const template = templates.data?.find((one) => one.id === parameters.get('template'))
  const copy = useEvent(copied ?? undefined, copied ? parameters.get('date') : null)
  if (copy.isError) return <NothingHere detail={copy.error.message} />
  if (line.isError) return <NothingHere detail={line.error.message} />
  if (!calendars || (isForm && text !== null && !line.data) || (copied && !copy.data) || templates.isPending)
    return <p className="page">{t('opening')}</p>
  // What is not settled does not come as far as the form.
  if (text !== null && (!isForm || line.data?.questions.length !== 0)) return <LinePage calendars={calendars} />
  const editable = calendars.filter((calendar) => calendar.mayContribute)
  const said = line.data?.calendarId ?? copy.data?.calendarId ?? template?.calendarId ?? parameters.get('calendar')
  // Nobody's event is filed on whichever calendar comes first: where none is said, it is asked.
  const chosen = editable.find((calendar) => calendar.id === said) ?? (editable.length === 1 ? editable[0] : undefined)
  if (editable.length === 0) return <NothingHere detail={t('thereIsNoCalendarOn')} />
  const usual = (calendarId: string) => templates.data?.find((one) => one.isUsual && one.calendarId === calendarId)
  const made = line.data?.events[0]
    ? draftOfRequest(line.data.events[0], chosen?.id ?? '', day)
    : newDraft(chosen?.id ?? '', day, parameters.get('from'))
  return (
    <EventPage
      key={parameters.toString()}
      calendars={calendars}
      stored={null}
      draft={
        copy.data
          ? draftOfCopy(copy.data, chosen)
          : template
            ? draftOfTemplate(template, chosen?.id ?? '', day)
            : { ...made, ...withUsual(made, usual(made.calendarId)) }
      }
      usual={copy.data || template ? undefined : usual}
      line={line.data}
      copyOf={copy.data}
    />
  )
}
