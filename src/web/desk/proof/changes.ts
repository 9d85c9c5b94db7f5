import { sayDay } from '../../shared/days'
import type { ChangedLine } from '../types'
import { t } from './words'

export const time = (moment: string) => moment.slice(11, 16)

/** "moved from 13:00"; what else became of it in a word. */
export function sayChange(line: { start: string; allDay: boolean }, { change, wasStart }: ChangedLine, locale: string): string {
  if (change !== 'moved' || !wasStart) return t(`change_${change}`)
  const isSameDay = wasStart.slice(0, 10) === line.start.slice(0, 10)
  return t('change_movedFrom', {
    was: isSameDay && !line.allDay ? time(wasStart) : sayDay(wasStart.slice(0, 10), locale, { day: 'numeric', month: 'short' }),
  })
}
