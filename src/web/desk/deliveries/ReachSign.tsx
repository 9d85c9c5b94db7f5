import { todayIn, sayDay } from '../../shared/days'
import { useOrganisation } from '../session/queries'
import type { Organisation, Reach } from '../types'
import { useReach } from './queries'
import { t } from './words'

/** "at 10:04", "on Mon, 23 Nov". */
export function sayWhen(instant: string, { zone, locale }: Organisation): string {
  const day = todayIn(zone, new Date(instant))
  return day === todayIn(zone)
    ? t('at', {
        time: new Intl.DateTimeFormat(locale, { timeZone: zone, hour: '2-digit', minute: '2-digit' }).format(new Date(instant)),
      })
    : t('on', { day: sayDay(day, locale, { weekday: 'short', day: 'numeric', month: 'short' }) })
}

/** Whether those that usually fetch it have what changed last: all, some or none. Nothing where nobody usually does. */
export function ReachSign({ reach }: { reach: Reach | undefined }) {
  const organisation = useOrganisation()
  if (!reach?.changedAt || reach.state === 'nobody') return null
  const { state, since, usual, last } = reach
  const said = t('reachSaid', {
    when: sayWhen(reach.changedAt, organisation),
    since,
    usual,
    last: t(`within_${last ?? 'seldom'}`),
  })
  return (
    <span className="reach" title={said}>
      <i className={`reach-mark reach-${state}`} aria-hidden="true" />
      {t(`reach_${state}`, { since, usual: Math.max(since, usual) })}
    </span>
  )
}

/** The same of all editions that carry a calendar. */
export function ReachOfCalendar({ id }: { id: string }) {
  return <ReachSign reach={useReach().data?.calendars.find((one) => one.id === id)} />
}
