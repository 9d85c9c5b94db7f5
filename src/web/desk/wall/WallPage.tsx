import { useState } from 'react'
import { Link, useLocation, useSearchParams } from 'react-router'
import { addDays, sayDay, type Day } from '../../shared/days'
import { firstDay, lastDay, timeOf } from '../../shared/slips'
import type { WallEntry } from '../../shared/wall'
import { WallSheet, type Paper } from '../../shared/WallSheet'
import { useCalendars, useGroups } from '../calendars/queries'
import { shownOn } from '../dates'
import { calendarsOf, offeredBy, PlanFilters } from '../plan/PlanFilters'
import { narrowing, useSheet } from '../plan/queries'
import { usePlanAddress, type Filter } from '../plan/usePlanAddress'
import { useOrganisation } from '../session/queries'
import type { Calendar, Occurrence } from '../types'
import { useIsNarrow } from '../useIsNarrow'
import { t } from './words'

const papers: Paper[] = ['a4', 'a3']

/** A year of the plan, narrowed as the plan is, as it goes onto paper. */
export function WallPage() {
  const plan = usePlanAddress()
  const { search } = useLocation()
  const [, setParameters] = useSearchParams()
  const { locale, name } = useOrganisation()
  const [paper, setPaper] = useState<Paper>('a3')
  const isOnPhone = useIsNarrow()
  const calendars = useCalendars()
  const groups = useGroups().data ?? []
  const chosen = calendarsOf(plan.filter, calendars.data ?? [], groups)
  const sheet = useSheet(`day=${plan.day}${narrowing({ ...plan.filter, words: '' }, chosen)}`)
  const calendarOf = new Map((calendars.data ?? []).map((calendar) => [calendar.id, calendar]))
  const occurrences = sheet.data?.occurrences ?? []
  const goTo = (day: Day) =>
    setParameters((before) => new URLSearchParams([...[...before].filter(([key]) => key !== 'day'), ['day', day]]))
  const problem = sheet.error ?? calendars.error
  const year = sheet.data?.sheet
  return (
    <main className="page wall-page">
      <div className="wall-acts">
        <h1>{t('title')}</h1>
        {year && (
          <span className="joined" role="group" aria-label={sayYear(year.from, year.to)}>
            <button type="button" aria-label={t('earlierYear')} onClick={() => goTo(addDays(year.from, -1))}>
              ‹
            </button>
            <strong>{sayYear(year.from, year.to)}</strong>
            <button type="button" aria-label={t('laterYear')} onClick={() => goTo(year.to)}>
              ›
            </button>
          </span>
        )}
        <span className="joined" role="group" aria-label={t('paper')}>
          {papers.map((one) => (
            <button key={one} type="button" aria-pressed={one === paper} onClick={() => setPaper(one)}>
              {t(`paper_${one}`)}
            </button>
          ))}
        </span>
        <button type="button" className="btn btn-spruce" disabled={occurrences.length === 0} onClick={() => window.print()}>
          {t('print')}
        </button>
        <span className="stretch" />
        <Link to={`/plan${search}`}>{t('back')}</Link>
      </div>
      <div className="wall-choosing" role="group" aria-label={t('choosing')}>
        <PlanFilters
          plan={plan}
          offered={offeredBy(occurrences)}
          calendars={(calendars.data ?? []).filter((one) => !one.isArchived)}
          groups={groups.map((group) => group.name)}
        />
      </div>
      <p className="soft wall-how">{isOnPhone ? t('phone') : t('how')}</p>
      {problem && (
        <p className="notice" role="alert">
          {problem.message}
        </p>
      )}
      {!problem && !year && <p className="soft">{t('gathering')}</p>}
      {year && !problem && occurrences.length === 0 && <p className="empty">{t('nothing')}</p>}
      {year && !problem && (
        <div className={sheet.isPlaceholderData ? 'is-older' : undefined}>
          <WallSheet
            name={t('titleOf', { year: sayYear(year.from, year.to), organisation: name })}
            about={about(plan.filter, chosen, sayDay(plan.today, locale, { day: 'numeric', month: 'long', year: 'numeric' }))}
            year={year}
            entries={occurrences.map((one) => entryOf(one, calendarOf))}
            calendars={calendars.data ?? []}
            paper={paper}
            locale={locale}
            words={{
              more: (count) => t('more', { count }),
              fullDays: t('fullDays'),
              often: t('often'),
              oftenBehind: (count) => t('oftenBehind', { count }),
              times: (count) => t('times', { count }),
              calendars: t('calendars'),
            }}
          />
        </div>
      )}
    </main>
  )
}

function entryOf(occurrence: Occurrence, calendarOf: Map<string, Calendar>): WallEntry {
  const shown = shownOn(occurrence, calendarOf)
  return {
    id: occurrence.eventId + occurrence.recurrenceId,
    title: occurrence.title,
    first: firstDay(occurrence),
    last: lastDay(occurrence),
    time: occurrence.allDay ? '' : timeOf(occurrence.start),
    colour: shown[0]?.colour ?? 'slate',
    plates: shown.map(({ plate, colour }) => ({ code: plate, colour })),
    isCancelled: occurrence.state === 'cancelled',
    isDraft: occurrence.state === 'draft' || occurrence.state === 'waiting',
    isDue: occurrence.kind === 'deadline',
    isUncertain: occurrence.certainty === 'tentative',
  }
}

/** "2026/27", or "2027" where the year begins in January. */
function sayYear(from: Day, to: Day): string {
  const last = addDays(to, -1)
  return from.slice(0, 4) === last.slice(0, 4) ? from.slice(0, 4) : `${from.slice(0, 4)}/${last.slice(2, 4)}`
}

/** What it is narrowed to, and as of when it is right. */
function about({ group, calendar, category, tag, place }: Filter, chosen: Calendar[], day: string): string {
  const calendars = group !== '' ? group : calendar !== '' ? chosen.map((one) => one.name).join(', ') : ''
  const what = [calendars, category, tag, place].filter((one) => one !== '').join(' · ')
  return what === '' ? t('about', { day }) : t('aboutNarrowed', { what, day })
}
