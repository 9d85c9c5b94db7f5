import { daysBetween, sayDay, type Day } from '../shared/days'
import { firstDay, lastDay, timeOf, type Timed } from '../shared/slips'
import { t } from './words'

/** "14:00–15:30", "all day", "08:00" for what has no length; on its later days, where it has got to. */
export function sayTime(slip: Timed, day: Day = firstDay(slip)): string {
  if (slip.kind === 'deadline') return slip.allDay ? t('due') : t('dueAt', { when: timeOf(slip.start) })
  const days = daysBetween(firstDay(slip), lastDay(slip)) + 1
  if (slip.allDay) return days === 1 ? t('allDay') : t('dayOfDays', { day: daysBetween(firstDay(slip), day) + 1, days })
  if (day !== firstDay(slip)) return day === lastDay(slip) ? t('untilTime', { time: timeOf(slip.end) }) : t('allDay')
  if (slip.start === slip.end) return timeOf(slip.start)
  return days === 1 ? `${timeOf(slip.start)}–${timeOf(slip.end)}` : t('fromTime', { time: timeOf(slip.start) })
}

/** "5 days", "from 22:00" of what lasts for several days. */
export function sayDays(slip: Timed): string {
  const days = daysBetween(firstDay(slip), lastDay(slip)) + 1
  return slip.allDay ? t('countOfDays', { count: days }) : t('fromTime', { time: timeOf(slip.start) })
}

/** "14:00" where there is room for no more. */
export function sayTimeShort(slip: Timed, day: Day): string {
  if (slip.allDay) return slip.kind === 'deadline' ? t('due') : t('allDay')
  return day === firstDay(slip) ? timeOf(slip.start) : t('goesOn')
}

/** The whole span in words, for details. */
export function sayWhen(slip: Timed, locale: string): string {
  const say = (day: Day) => sayDay(day, locale, { weekday: 'long', day: 'numeric', month: 'long', year: 'numeric' })
  const [first, last] = [firstDay(slip), lastDay(slip)]
  const [from, to] = [timeOf(slip.start), timeOf(slip.end)]
  if (slip.kind === 'deadline') return t('dueAt', { when: slip.allDay ? say(first) : t('dayAt', { day: say(first), from }) })
  if (slip.allDay)
    return first === last ? t('dayAllDay', { day: say(first) }) : t('dayToDay', { first: say(first), last: say(last) })
  if (slip.start === slip.end) return t('dayAt', { day: say(first), from })
  return first === slip.end.slice(0, 10)
    ? t('dayFromTo', { day: say(first), from, to })
    : t('dayFromToDay', { first: say(first), from, last: say(slip.end.slice(0, 10)), to })
}
