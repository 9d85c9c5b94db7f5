import { useState } from 'react'
import { Link } from 'react-router'
import { Plate } from '../../shared/Plate'
import type { Calendar } from '../types'
import { DeliveryLine } from '../Delivery'
import { Level } from '../Level'
import { audiences } from '../openness'
import { useCalendars, useGroups } from './queries'
import { useSeeAs } from '../SeenAsNotice'
import { useSeenAs } from '../seeAs'
import { useSession } from '../session/queries'
import { isMeant, MANY, orders, sorted, type Order } from './finding'
import { Groups } from './Groups'
import { LevelCell } from './LevelCell'
import { RowActs } from './RowActs'
import { ProofOfCalendar } from '../proof/ProofLink'
import { t } from './words'

/** Calendars against audiences: who sees how much of each, changed in place. */
export function CalendarsPage() {
  const calendars = useCalendars()
  const isAdministrator = useSession().data?.person?.isAdministrator ?? false
  const seen = useSeenAs()
  const seeAs = useSeeAs()
  const groups = useGroups().data ?? []
  const [find, setFind] = useState('')
  const [order, setOrder] = useState<Order>('made')
  const live = calendars.data?.filter((calendar) => !calendar.isArchived) ?? []
  const shown = sorted(
    live.filter((calendar) => isMeant(calendar, groups, find)),
    order,
  )
  const archived = calendars.data?.filter((calendar) => calendar.isArchived) ?? []
  return (
    <main className="page">
      <div className="page-head">
        <h1>{t('calendars')}</h1>
        <span className="soft">{t('whoSeesHowMuchOf')}</span>
        <span className="stretch" />
        {seen === null && (
          <button type="button" className="btn btn-outline-ink" onClick={() => seeAs('everyone')}>
            {t('seeAsEveryone')}
          </button>
        )}
        {isAdministrator && (
          <Link className="btn btn-spruce" to="/calendars/new">
            {t('newCalendar')}
          </Link>
        )}
      </div>
      {calendars.error && (
        <p className="notice" role="alert">
          {calendars.error.message}
        </p>
      )}
      {calendars.data?.length === 0 && (
        <p className="empty">{isAdministrator ? t('thereIsNoCalendarYet') : t('thereIsNoCalendarThat')}</p>
      )}
      {live.length > MANY && (
        <div className="calendars-found" role="search">
          <input
            className="form-control"
            aria-label={t('findACalendar')}
            placeholder={t('nameOrPlate')}
            value={find}
            onChange={(event) => setFind(event.target.value)}
          />
          <select
            className="form-select"
            aria-label={t('order')}
            value={order}
            onChange={(event) => setOrder(event.target.value as Order)}
          >
            {orders.map((one) => (
              <option key={one} value={one}>
                {t(`order_${one}`)}
              </option>
            ))}
          </select>
        </div>
      )}
      {live.length > 0 && shown.length === 0 && <p className="empty">{t('noneIsCalledSo', { text: find.trim() })}</p>}
      {shown.length > 0 && <Table calendars={shown} all={live} label={t('calendarsAndWhoSeesThem')} />}
      {archived.length > 0 && (
        <section className="archived">
          <h2>{t('archived')}</h2>
          <p className="soft">{t('nobodyChangesTheirEventsWhat')}</p>
          <Table calendars={archived} all={live} label={t('archivedCalendars')} />
        </section>
      )}
      {calendars.data && calendars.data.length > 0 && <GroupsBelow calendars={live} mayEdit={isAdministrator} />}
    </main>
  )
}

function GroupsBelow({ calendars, mayEdit }: { calendars: Calendar[]; mayEdit: boolean }) {
  const groups = useGroups().data ?? []
  return groups.length > 0 || mayEdit ? <Groups groups={groups} calendars={calendars} mayEdit={mayEdit} /> : null
}

/** @param all Those into which one can be merged. */
function Table({ calendars, all, label }: { calendars: Calendar[]; all: Calendar[]; label: string }) {
  const isKept = calendars.some((calendar) => calendar.events !== null)
  return (
    <div className="table-scroll" tabIndex={0} role="region" aria-label={label}>
      <table className="audiences as-cards">
        <thead>
          <tr>
            <th scope="col">{t('calendar')}</th>
            {audiences.map(({ key, name, about }) => (
              <th key={key} scope="col">
                {name}
                <small>{about}</small>
              </th>
            ))}
            <th scope="col" className="number">
              {t('events')}
            </th>
            <th scope="col">{t('goneOut')}</th>
            {isKept && <th scope="col">{t('keptBy')}</th>}
            <th scope="col">
              <span className="visually-hidden">{t('screens')}</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {calendars.map((calendar) => (
            <tr key={calendar.id}>
              <th scope="row">
                <Plate code={calendar.plate} colour={calendar.colour} /> {calendar.name}
              </th>
              {audiences.map(({ key, name }) =>
                key === 'editors' ? (
                  <td key={key} data-label={name}>
                    <Level detail="complete" />
                  </td>
                ) : (
                  <LevelCell key={key} calendar={calendar} audience={key} label={name} />
                ),
              )}
              <td className="number" data-label={t('events')}>
                {calendar.events ?? '–'}
              </td>
              <td data-label={t('goneOut')}>
                <DeliveryLine delivery={calendar.delivery} /> <ProofOfCalendar id={calendar.id} />
              </td>
              {isKept && (
                <td className="kept-by" data-label={t('keptBy')}>
                  {calendar.isFollowed ? (
                    <Link to="/intake">{t('aFollowedSource')}</Link>
                  ) : (
                    sayKeepers(calendar) || <span className="soft">{t('administrators')}</span>
                  )}
                </td>
              )}
              <td className="row-links">
                <RowActs calendar={calendar} others={all.filter((one) => one.id !== calendar.id)} />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  )
}

/** "Bo, Cy (waits for sign-off)". */
function sayKeepers(calendar: Calendar): string {
  return calendar.keptBy
    .map(({ name, role }) => {
      const first = name.split(' ')[0] ?? name
      return role === 'contributor' && calendar.requiresSignOff ? t('firstWaitsForSignOff', { first }) : first
    })
    .join(', ')
}
