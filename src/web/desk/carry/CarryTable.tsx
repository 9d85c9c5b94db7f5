import { useState, type ReactNode } from 'react'
import { useCalendars } from '../calendars/queries'
import { useMakingMany } from '../changes/useMakingMany'
import type { CarriedRow, YearPlan } from '../types'
import { useSettled } from '../useSettled'
import { useWrite } from '../useWrite'
import { CarryFilters, isShown, noNarrowing, type Narrowing } from './CarryFilters'
import { CarryRows } from './CarryRows'
import { useCarried } from './queries'
import { t } from './words'

/** What somebody said of a row. */
export interface Correction {
  day: string | null
  title: string | null
}

interface CarryTableProps {
  from: YearPlan
  into: YearPlan
  /** Chooses other years. */
  children: ReactNode
}

export function CarryTable({ from, into, children }: CarryTableProps) {
  const [corrections, setCorrections] = useState<ReadonlyMap<string, Correction>>(new Map())
  /** Those that were ticked or not, other than at first. */
  const [ticks, setTicks] = useState<ReadonlyMap<string, boolean>>(new Map())
  const [asDrafts, setAsDrafts] = useState(true)
  const [narrowing, setNarrowing] = useState<Narrowing>(noNarrowing)
  const calendars = useCalendars().data ?? []
  const { rows, problem: unread, isReading } = useRows(from, into, corrections)
  const isChosen = (row: CarriedRow) => row.mayBeMade && (ticks.get(row.eventId) ?? !row.isThere)
  const chosen = rows.filter(isChosen)
  const shown = rows.filter((row) => isShown(row, narrowing))
  const whoSees = useWhoSees(from, into, corrections, asDrafts ? null : chosen)
  const write = useWrite()
  const acts = useMakingMany(corrections.size + ticks.size > 0, t('notMadeYet'))
  const correct = (row: CarriedRow, change: Partial<Correction>) =>
    setCorrections((before) =>
      new Map(before).set(row.eventId, { day: null, title: null, ...before.get(row.eventId), ...change }),
    )
  const tick = (some: CarriedRow[], isOn: boolean) =>
    setTicks((before) => new Map([...before, ...some.filter((row) => row.mayBeMade).map((row) => [row.eventId, isOn] as const)]))
  const save = () => {
    const made = chosen.map(({ eventId }) => ({ eventId, day: null, title: null, ...corrections.get(eventId) }))
    void acts.make(
      (once) => write('POST', `/year-plans/${from.id}/carry`, { into: into.id, rows: made, asDrafts }, { once }),
      (count) => t(asDrafts ? 'madeAsDrafts' : 'madeLive', { count, year: into.name }),
      `/plan?view=list&span=year&day=${into.first}`,
    )
  }
  return (
    <main className="page carry">
      <div className="page-head carry-head">
        <h1>{t('yearCarriedToYear', { from: from.name, into: into.name })}</h1>
        <span className="stretch" />
        <span aria-live="polite">{t('countChosen', { count: chosen.length, total: rows.length })}</span>
        <button type="button" className="btn btn-outline-ink" onClick={() => window.print()}>
          {t('print')}
        </button>
        <span className="joined" role="group" aria-label={t('asWhat')}>
          {[true, false].map((one) => (
            <button key={String(one)} type="button" aria-pressed={asDrafts === one} onClick={() => setAsDrafts(one)}>
              {one ? t('asDrafts') : t('live')}
            </button>
          ))}
        </span>
        <button
          type="button"
          className="btn btn-spruce"
          disabled={chosen.length === 0 || acts.isBusy || isReading}
          onClick={save}
        >
          {acts.isBusy ? t('making', { count: chosen.length }) : t('makeEvents', { count: chosen.length })}
        </button>
      </div>
      <p className="soft">{t('byTermAndWeek')}</p>
      {acts.isBusy && <progress aria-label={t('making', { count: chosen.length })} />}
      {(acts.problem ?? unread) && (
        <p className="notice" role="alert">
          {(acts.problem ?? unread)?.message}
        </p>
      )}
      <CarryFilters rows={rows} calendars={calendars} narrowing={narrowing} onChange={setNarrowing}>
        {children}
      </CarryFilters>
      <p className="carry-readers">
        {asDrafts ? t('draftsAreSeenByNobody') : whoSees.length > 0 ? [t('whoWillSeeThem'), whoSees.join(' · ')].join(' ') : ' '}
      </p>
      {isReading && rows.length === 0 && <p className="soft">{t('lookingThroughTheYear')}</p>}
      {!isReading && rows.length === 0 && !unread && <p className="empty">{t('nothingToCarry')}</p>}
      {rows.length > 0 && (
        <CarryRows
          rows={shown}
          calendars={calendars}
          near={into.first}
          isChosen={isChosen}
          tick={tick}
          correct={correct}
          titles={corrections}
        />
      )}
      {acts.guard}
    </main>
  )
}

/** All rows as they are at first, and those that were corrected as they would be by now. */
function useRows(from: YearPlan, into: YearPlan, corrections: ReadonlyMap<string, Correction>) {
  const all = useCarried(from.id, { into: into.id, rows: [], only: null, chosen: null })
  const text = useSettled(JSON.stringify([...corrections]), 300)
  const settled = new Map(JSON.parse(text) as [string, Correction][])
  const corrected = useCarried(
    from.id,
    settled.size === 0 ? null : { into: into.id, rows: bodies(settled), only: [...settled.keys()], chosen: null },
  )
  const byId = new Map((settled.size === 0 ? [] : (corrected.data?.rows ?? [])).map((row) => [row.eventId, row]))
  return {
    rows: (all.data?.rows ?? []).map((row) => byId.get(row.eventId) ?? row),
    problem: all.error ?? corrected.error,
    isReading: all.isFetching || corrected.isFetching || text !== JSON.stringify([...corrections]),
  }
}

const bodies = (corrections: ReadonlyMap<string, Correction>) =>
  [...corrections].map(([eventId, correction]) => ({ eventId, ...correction }))

function useWhoSees(from: YearPlan, into: YearPlan, corrections: ReadonlyMap<string, Correction>, chosen: CarriedRow[] | null) {
  const text = useSettled(JSON.stringify(chosen?.map((row) => row.eventId) ?? null), 300)
  const ids = JSON.parse(text) as string[] | null
  const asked = useCarried(from.id, ids === null ? null : { into: into.id, rows: bodies(corrections), only: [], chosen: ids })
  return ids === null ? [] : (asked.data?.whoSees ?? [])
}
