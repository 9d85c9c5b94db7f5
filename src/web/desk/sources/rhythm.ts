import { sayDay, todayIn } from '../../shared/days'
import type { Organisation } from '../types'
import { t } from './words'

/** How often one may be asked, in minutes. */
export const rhythms = [30, 60, 120, 360, 720, 1440, 10080]

export const sayRhythm = (minutes: number): string =>
  minutes < 60
    ? t('everyMinutes', { count: minutes })
    : minutes < 1440
      ? t('everyHours', { count: minutes / 60 })
      : t('everyDays', { count: minutes / 1440 })

/** "12 kB". */
export const sayBytes = (bytes: number): string =>
  bytes < 1_000_000
    ? t('kilobytes', { count: Math.max(1, Math.round(bytes / 1000)) })
    : t('megabytes', { count: Math.round(bytes / 1e6) })

/** "06:10", or with the day when that was not today. */
export function sayMoment(instant: string, { zone, locale }: Organisation): string {
  const time = new Intl.DateTimeFormat(locale, { timeZone: zone, hour: '2-digit', minute: '2-digit' }).format(new Date(instant))
  const day = todayIn(zone, new Date(instant))
  return day === todayIn(zone) ? time : `${sayDay(day, locale, { day: 'numeric', month: 'short' })}, ${time}`
}
