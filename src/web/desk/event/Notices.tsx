import { Link } from 'react-router'
import { Plate } from '../../shared/Plate'
import type { About, Calendar, CalendarEvent, Proposal } from '../api'
import { sayAgo } from '../Delivery'

/** That this date is not as its series says, or that it has not gone out, with the way on. */
export function StateNotice({ stored, onRestore }: { stored: CalendarEvent; onRestore: () => void }) {
  if (stored.state === 'draft') return <p className="notice state-notice">A draft: only those who keep the calendar see it.</p>
  if (stored.state !== 'cancelled' && stored.differs === '') return null
  const words =
    stored.state === 'cancelled'
      ? stored.isCancelledAlone
        ? 'This date is cancelled. Readers see it struck through.'
        : 'It is cancelled. Readers see it struck through.'
      : `This date differs from its series: ${stored.differs}.`
  return (
    <p className="notice state-notice">
      {words}{' '}
      <button type="button" className="btn btn-outline-ink" onClick={onRestore}>
        {stored.state === 'cancelled' ? 'It takes place after all' : 'Make it as the series again'}
      </button>
    </p>
  )
}

/** Where things stand that were handed in about the event. */
export function AboutNotices({ stored, calendars }: { stored: CalendarEvent; calendars: Calendar[] }) {
  return stored.about.map((about) => {
    const calendar = calendars.find((one) => one.id === about.calendarId)
    return (
      <p key={about.id} className="notice state-notice">
        {calendar && <Plate code={calendar.plate} colour={calendar.colour} size="small" />} {sayAbout(about, calendar)}{' '}
        {about.reason && <q>{about.reason}</q>}{' '}
        {about.kind === 'change' && about.isYours && (
          <Link to={`/events/${stored.id}?submission=${about.id}`}>
            {about.state === 'sentBack' ? 'Take it up again' : 'Look at it again'}
          </Link>
        )}
        {!about.isYours && about.state === 'open' && <Link to="/sign-off">Decide</Link>}
      </p>
    )
  })
}

function sayAbout(about: About, calendar: Calendar | undefined): string {
  const who = about.isYours ? 'You' : about.proposer
  const when = sayAgo(about.madeAt)
  if (about.state === 'sentBack')
    return `${about.decidedBy} sent ${about.isYours ? 'your' : `${about.proposer}’s`} ${nouns[about.kind]} back:`
  if (about.kind === 'event') return `${who} handed it in ${when}. It waits for sign-off.`
  if (about.kind === 'change') return `${who} handed in a change ${when}. It waits; until then this is what is out.`
  return `${who} asked ${when} to show it on ${calendar?.name ?? 'another calendar'}. Its editors have not answered yet.`
}

const nouns: Record<About['kind'], string> = { event: 'event', change: 'change', placement: 'wish to show it there' }

/** That the form holds what somebody handed in. */
export function ProposalNotice({ stored, proposal }: { stored: CalendarEvent | null; proposal: Proposal }) {
  const about = stored?.about.find((one) => one.id === proposal.id)
  return (
    <p className="notice state-notice">
      {about?.isYours
        ? 'This is the change that you handed in. Handing it in again replaces it.'
        : `This is the change that ${about?.proposer ?? 'a contributor'} handed in. Change what you like: saving approves it.`}
    </p>
  )
}

/** That this is a new event, by itself from now on. */
export function CopyNotice({ copyOf }: { copyOf: CalendarEvent }) {
  return (
    <p className="notice state-notice">
      A copy of “{copyOf.title}”: a new event, by itself from now on. To show the same event on more calendars, place it there
      instead.
    </p>
  )
}
