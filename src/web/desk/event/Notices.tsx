import { Link } from 'react-router'
import { Plate } from '../../shared/Plate'
import type { About, Calendar, CalendarEvent, Proposal } from '../types'
import { sayAgo } from '../Delivery'
import { t } from './words'

/** That this date is not as its series says, or that it has not gone out, with the way on. */
export function StateNotice({ stored, onRestore }: { stored: CalendarEvent; onRestore: () => void }) {
  if (stored.state === 'draft') return <p className="notice state-notice">{t('aDraftOnlyThoseWho')}</p>
  if (stored.state !== 'cancelled' && stored.differs === '') return null
  const words =
    stored.state === 'cancelled'
      ? stored.isCancelledAlone
        ? t('thisDateIsCancelledReaders')
        : t('itIsCancelledReadersSee')
      : t('thisDateDiffersFromIts', { differs: stored.differs })
  return (
    <p className="notice state-notice">
      {words}{' '}
      <button type="button" className="btn btn-outline-ink" onClick={onRestore}>
        {stored.state === 'cancelled' ? t('itTakesPlaceAfterAll') : t('makeItAsTheSeries')}
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
            {about.state === 'sentBack' ? t('takeUpAgain') : t('lookAtItAgain')}
          </Link>
        )}
        {!about.isYours && about.state === 'open' && <Link to="/sign-off">{t('decide')}</Link>}
      </p>
    )
  })
}

function sayAbout(about: About, calendar: Calendar | undefined): string {
  const when = sayAgo(about.madeAt)
  if (about.state === 'sentBack')
    return t(about.isYours ? `yours_${about.kind}` : `theirs_${about.kind}`, {
      decidedBy: about.decidedBy,
      proposer: about.proposer,
    })
  const values = { who: about.proposer, when, name: calendar?.name ?? t('anotherCalendar') }
  return t(about.isYours ? `you_${about.kind}` : `who_${about.kind}`, values)
}

/** That the form holds what somebody handed in. */
export function ProposalNotice({ stored, proposal }: { stored: CalendarEvent | null; proposal: Proposal }) {
  const about = stored?.about.find((one) => one.id === proposal.id)
  return (
    <p className="notice state-notice">
      {about?.isYours
        ? t('thisIsYourChange')
        : about
          ? t('thisIsTheChangeOf', { proposer: about.proposer })
          : t('thisIsTheChangeOfAContributor')}
    </p>
  )
}

/** That this is a new event, by itself from now on. */
export function CopyNotice({ copyOf }: { copyOf: CalendarEvent }) {
  return <p className="notice state-notice">{t('aCopyOfTitleA', { title: copyOf.title })}</p>
}
