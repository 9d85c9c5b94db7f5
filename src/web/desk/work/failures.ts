import { sayDay, todayIn } from '../../shared/days'
import type { Failing, FailureReason, Organisation } from '../api'

const reasons: Record<FailureReason, string> = {
  database: 'the database did not answer',
  disk: 'there is no room left on the disk',
  mailServer: 'the mail server did not take it',
  ours: 'a mistake of ours; it stands in the log',
}

export function sayReason(reason: FailureReason): string {
  return reasons[reason]
}

/** "14:05", or with the day when that was not today. */
export function saySince(instant: string, { zone, locale }: Organisation): string {
  const time = new Intl.DateTimeFormat(locale, { timeZone: zone, hour: '2-digit', minute: '2-digit' }).format(new Date(instant))
  const day = todayIn(zone, new Date(instant))
  return day === todayIn(zone) ? time : `${sayDay(day, locale, { day: 'numeric', month: 'short' })}, ${time}`
}

const what: Record<Failing['kind'], string> = {
  render: 'Going out',
  mail: 'A mail',
  gather: 'News by mail',
  reset: 'A link for a new password',
  sweep: 'Emptying the bin',
}

/** "Going out", "A mail to cy@pinewick.example". */
export function sayWork({ kind, subject }: Failing): string {
  if (kind === 'mail' && subject) return `A mail to ${subject}`
  if (kind === 'gather' && subject) return `News by mail for ${subject}`
  return what[kind]
}
