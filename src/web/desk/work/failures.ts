import { sayDay, todayIn } from '../../shared/days'
import type { Failing, FailureReason, Organisation } from '../types'
import { t } from './words'

const reasons: Record<FailureReason, string> = {
  database: t('theDatabaseDidNotAnswer'),
  disk: t('thereIsNoRoomLeft'),
  mailServer: t('theMailServerDidNot'),
  elsewhere: t('theOtherServerDidNot'),
  ours: t('aMistakeOfOursIt'),
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
  render: t('goingOut'),
  mail: t('aMail'),
  gather: t('newsByMail'),
  reset: t('aLinkForANew'),
  sweep: t('emptyingTheBin'),
  intake: t('aFileOfEvents'),
  follow: t('aFollowedSource'),
  push: t('aCalendarElsewhere'),
  prove: t('lookingAnEditionThrough'),
  links: t('askingLinks'),
  digest: t('mailOfChanges'),
}

/** "Going out", "A mail to cy@pinewick.example". */
export function sayWork({ kind, subject }: Failing): string {
  if (kind === 'mail' && subject) return t('aMailToSubject', { subject })
  if (kind === 'gather' && subject) return t('newsByMailForSubject', { subject })
  if (kind === 'push' && subject) return t('writingSubject', { subject })
  return what[kind]
}
