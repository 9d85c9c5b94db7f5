import type { ReactNode } from 'react'
import { Link } from 'react-router'
import { sayDay } from '../../shared/days'
import { Plate } from '../../shared/Plate'
import type { Binned, TakenOut } from '../types'
import { useChange, useUndo } from '../changes/Changes'
import { sayAgo } from '../Delivery'
import { useCalendarBin, useCalendars } from '../calendars/queries'
import { useEditionBin } from '../editions/queries'
import { useBin, useTakenOut } from './queries'
import { useAttempt, useWrite } from '../useWrite'
import { useOrganisation, useSession } from '../session/queries'
import { useToast } from '../Toasts'
import { t } from './words'

/** What was removed rests here for 90 days. */
export function BinPage() {
  const { locale } = useOrganisation()
  const bin = useBin()
  const calendars = useCalendars().data ?? []
  const write = useWrite()
  const attempt = useAttempt()
  const toast = useToast()
  const undo = useUndo()
  const restore = (one: Binned) =>
    attempt(async () => {
      const done = await write('POST', `/bin/${one.id}/restore?version=${one.version}`)
      toast(t('titleIsBack', { title: one.title }), () => undo(done.actId))
    })
  const isAdministrator = useSession().data?.person?.isAdministrator ?? false
  return (
    <main className="page">
      <h1>{t('bin')}</h1>
      <p className="soft">{t('whatIsRemovedRestsHere')}</p>
      {bin.error && (
        <p className="notice" role="alert">
          {bin.error.message}
        </p>
      )}
      {bin.data?.length === 0 && <p className="empty">{t('theBinIsEmpty')}</p>}
      <p className="soft">{t.rich('wholeActsAreTakenBack', {}, <Link to="/lately" />)}</p>
      {isAdministrator && <BinnedCalendars />}
      <BinnedEditions />
      {bin.data && bin.data.length > 0 && (
        <table className="plain-table">
          <thead>
            <tr>
              <th scope="col">{t('event')}</th>
              <th scope="col">{t('when')}</th>
              <th scope="col">{t('removed')}</th>
              <th scope="col">{t('goneForGood')}</th>
              <th scope="col">
                <span className="visually-hidden">{t('restore')}</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {bin.data.map((one) => {
              const calendar = calendars.find((calendar) => calendar.id === one.calendarId)
              return (
                <tr key={one.id}>
                  <td>
                    {calendar && <Plate code={calendar.plate} colour={calendar.colour} size="small" />} <b>{one.title}</b>
                  </td>
                  <td>{one.words}</td>
                  <td>{t('agoBy', { ago: sayAgo(one.removedAt), by: one.by })}</td>
                  <td>{sayDay(one.goneAt.slice(0, 10), locale, { day: 'numeric', month: 'long', year: 'numeric' })}</td>
                  <td>
                    <button type="button" className="btn btn-outline-ink" onClick={() => restore(one)}>
                      {t('restore')}
                    </button>
                  </td>
                </tr>
              )
            })}
          </tbody>
        </table>
      )}
      <TakenOutDates />
    </main>
  )
}

/** Single dates of series: what was taken out of them. */
function TakenOutDates() {
  const dates = useTakenOut().data ?? []
  const calendars = useCalendars().data ?? []
  const change = useChange()
  const attempt = useAttempt()
  const restore = ({ eventId, recurrenceId, version }: TakenOut) =>
    attempt(() => change(eventId, { act: 'restore', recurrenceId, version, event: null, move: null, scope: 'this' }))
  if (dates.length === 0) return null
  return (
    <section>
      <h2>{t('datesOfSeries')}</h2>
      <p className="soft">{t('takenOutOfTheirSeries')}</p>
      <ul className="plain-list">
        {dates.map((one) => {
          const calendar = calendars.find(({ id }) => id === one.calendarId)
          return (
            <li key={one.eventId + one.recurrenceId}>
              {calendar && <Plate code={calendar.plate} colour={calendar.colour} size="small" />} <b>{one.title}</b>{' '}
              <span className="soft">{one.words}</span>
              <button type="button" className="btn btn-outline-ink" onClick={() => restore(one)}>
                {t.rich('restoreName', { name: `${one.title}, ${one.words}` }, <span className="visually-hidden" />)}
              </button>
            </li>
          )
        })}
      </ul>
    </section>
  )
}

/** Whole calendars, with all that they held. */
function BinnedCalendars() {
  const binned = useCalendarBin(true).data ?? []
  return (
    <BinnedList
      title={t('calendars')}
      path="/calendars"
      binned={binned.map((calendar) => ({
        ...calendar,
        mark: <Plate code={calendar.plate} colour={calendar.colour} size="small" />,
      }))}
      about={t('withItsEventsAndAddresses')}
    />
  )
}

/** Composed editions. */
function BinnedEditions() {
  const binned = useEditionBin().data ?? []
  return <BinnedList title={t('editions')} path="/editions" binned={binned} about={t('atItsOldAddresses')} />
}

interface BinnedListProps {
  title: string
  /** Where the API keeps them. */
  path: '/calendars' | '/editions'
  binned: { id: string; name: string; removedAt: string; goneAt: string; mark?: ReactNode }[]
  /** Said when one is back. */
  about: string
}

function BinnedList({ title, path, binned, about }: BinnedListProps) {
  const { locale } = useOrganisation()
  const write = useWrite()
  const attempt = useAttempt()
  const toast = useToast()
  const restore = (id: string, name: string) =>
    attempt(async () => {
      await write('POST', `${path}/${id}/restore`)
      toast(t('nameIsBackAbout', { name, about }))
    })
  if (binned.length === 0) return null
  return (
    <section>
      <h2>{title}</h2>
      <ul className="plain-list">
        {binned.map((one) => (
          <li key={one.id}>
            {one.mark} <b>{one.name}</b>{' '}
            <span className="soft">
              {t('removedAgoGoneForGood', {
                ago: sayAgo(one.removedAt),
                day: sayDay(one.goneAt.slice(0, 10), locale, { day: 'numeric', month: 'long', year: 'numeric' }),
              })}
            </span>
            <button type="button" className="btn btn-outline-ink" onClick={() => restore(one.id, one.name)}>
              {t.rich('restoreName', { name: one.name }, <span className="visually-hidden" />)}
            </button>
          </li>
        ))}
      </ul>
    </section>
  )
}
