import { useEffect, useState } from 'react'
import { Link, useLocation } from 'react-router'
import { sayDay } from '../../shared/days'
import { firstDay } from '../../shared/slips'
import { asSeen, call } from '../api'
import { ChosenBar } from '../chosen/ChosenBar'
import { mayChoose, useChoosing } from '../chosen/choosing'
import { DateLink } from '../chosen/DateLink'
import { shownOn } from '../dates'
import { Plates } from '../Plates'
import { useOrganisation } from '../session/queries'
import { sayTime } from '../times'
import type { Calendar, Occurrence } from '../types'
import { useAttempt } from '../useWrite'
import { questionOf, useList } from './queries'
import { orders, type Order, type Plan } from './usePlanAddress'
import { t } from './words'

const forms = ['ics', 'csv', 'xlsx'] as const
const ON_PAGE = 100
const MOST_PRINTED = 5000

/** All that is on in a year, narrowed and sorted, by pages; to print and to take along. */
export function YearList({ plan, calendars }: { plan: Plan; calendars: Calendar[] }) {
  const { order, page } = plan
  const { search } = useLocation()
  const [isPrinting, setIsPrinting] = useState(false)
  const choosing = useChoosing()
  const attempt = useAttempt()
  const question = questionOf(plan, calendars)
  const list = useList(isPrinting ? `${question}&size=${MOST_PRINTED}` : `${question}&page=${page}`)
  const isReady = isPrinting && list.isSuccess && !list.isPlaceholderData
  useEffect(() => {
    if (!isReady) return
    const done = () => setIsPrinting(false)
    window.addEventListener('afterprint', done)
    window.print()
    return () => window.removeEventListener('afterprint', done)
  }, [isReady])

  const addAll = () => attempt(async () => choosing.add(await call('GET', `/occurrences/list/names?${question}`)))
  if (list.error)
    return (
      <p className="notice" role="alert">
        {list.error.message}
      </p>
    )
  if (!list.data) return <p className="soft">{t('lookingThroughTheYear')}</p>
  const { total, pages, occurrences } = list.data
  const from = (list.data.page - 1) * (isPrinting ? MOST_PRINTED : ON_PAGE)
  return (
    <>
      <div className="list-acts">
        <strong aria-live="polite">
          {total === 0 ? '' : t('countOfDates', { from: from + 1, to: from + occurrences.length, total })}
        </strong>
        {pages > 1 && (
          <span className="joined" role="group" aria-label={t('pages')}>
            <button type="button" disabled={page <= 1} onClick={() => plan.go({ page: page - 1 })}>
              ‹ {t('earlierPage')}
            </button>
            <button type="button" disabled={page >= pages} onClick={() => plan.go({ page: page + 1 })}>
              {t('laterPage')} ›
            </button>
          </span>
        )}
        <span className="stretch" />
        {total > 0 && (
          <>
            <Link to={`/plan/sheet${search}`}>{t('onOneSheet')}</Link>
            <button type="button" className="as-link" disabled={isPrinting} onClick={() => setIsPrinting(true)}>
              {isPrinting ? t('preparing') : t('print')}
            </button>
            <span>
              {t('takeAlong')}{' '}
              {forms.map((form) => (
                <a key={form} href={asSeen(`/occurrences/list.${form}?${question}`)} download>
                  {t(`form_${form}`)}
                </a>
              ))}
            </span>
          </>
        )}
      </div>
      {choosing.isOn && <ChosenBar shown={occurrences.filter(mayChoose)} addAll={{ count: total, add: () => void addAll() }} />}
      {total === 0 ? (
        <p className="empty">{t('noDates')}</p>
      ) : (
        <Table occurrences={occurrences} calendars={calendars} order={order} sort={(by) => plan.go({ order: by })} />
      )}
    </>
  )
}

interface TableProps {
  occurrences: Occurrence[]
  calendars: Calendar[]
  order: Order
  sort: (by: Order) => void
}

function Table({ occurrences, calendars, order, sort }: TableProps) {
  const { locale } = useOrganisation()
  const calendarOf = new Map(calendars.map((calendar) => [calendar.id, calendar]))
  return (
    <table className="year-list">
      <caption className="visually-hidden">{t('listOfTheYear')}</caption>
      <thead>
        <tr>
          {orders.map((one) => (
            <th key={one} scope="col" aria-sort={one === order ? 'ascending' : undefined}>
              <button type="button" onClick={() => sort(one)}>
                {t(`column_${one}`)} {one === order && <span aria-hidden="true">↓</span>}
              </button>
            </th>
          ))}
          <th scope="col">{t('category')}</th>
        </tr>
      </thead>
      <tbody>
        {occurrences.map((one) => (
          <tr key={one.eventId + one.recurrenceId}>
            <td className="year-list-time">
              <span>{sayDay(firstDay(one), locale, { weekday: 'short', day: 'numeric', month: 'short', year: 'numeric' })}</span>
              <span className="soft">{sayTime(one)}</span>
            </td>
            <td>
              <span className="year-list-plates">
                <Plates calendars={shownOn(one, calendarOf)} />
              </span>
            </td>
            <td>
              <DateLink occurrence={one} />
            </td>
            <td>{one.place}</td>
            <td>{one.category?.name}</td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}
