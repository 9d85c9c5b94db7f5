import { lazy, memo, Suspense, useDeferredValue, useEffect, useMemo } from 'react'
import { Link, Navigate, useLocation, useNavigate } from 'react-router'
import { addDays, monthOf, sayDay, sayMonth, saySpan } from '../../shared/days'
import type { Calendar, DayInfo, Group, Occurrence } from '../types'
import { useCalendars, useGroups } from '../calendars/queries'
import { ChoosingProvider, mayChoose, useChoosing } from '../chosen/choosing'
import { sayAgo } from '../Delivery'
import { questionOf, useDays, useList, useOccurrences } from './queries'
import { useOrganisation } from '../session/queries'
import { rememberPlan } from '../lastPlan'
import { useIsNarrow } from '../useIsNarrow'
import { useKeys } from '../useKeys'
import { Lanes } from './Lanes'
import { MovingProvider } from './moving'
import { archived, calendarsOf, narrowed, offeredBy } from './PlanFilters'
import { PlanTools } from './PlanTools'
import { shownAmong } from './Slip'
import { useSameFocus } from './useSameFocus'
import { spans, usePlanAddress, type Plan, type PlanView } from './usePlanAddress'
import { lastView } from './views'
import { YearRibbon } from './YearRibbon'
import { t } from './words'

// The lanes come first; the other views when they are wanted.
const PlanList = lazy(() => import('./PlanList').then(({ PlanList: shown }) => ({ default: shown })))
const PlanMonth = lazy(() => import('./PlanMonth').then(({ PlanMonth: shown }) => ({ default: shown })))
const TimeGrid = lazy(() => import('./TimeGrid').then(({ TimeGrid: shown }) => ({ default: shown })))
const PhonePlan = lazy(() => import('./PhonePlan').then(({ PhonePlan: shown }) => ({ default: shown })))
const ChosenBar = lazy(() => import('../chosen/ChosenBar').then(({ ChosenBar: shown }) => ({ default: shown })))
const YearList = lazy(() => import('./YearList').then(({ YearList: shown }) => ({ default: shown })))

const viewNames: Record<PlanView, string> = {
  lanes: t('lanes'),
  month: t('month'),
  week: t('week'),
  day: t('day'),
  list: t('list'),
}

export function PlanPage() {
  const { search } = useLocation()
  const { slug } = useOrganisation()
  const last = lastView(slug)
  // Whoever comes without saying how to look comes back to the view that was chosen last.
  if (search === '' && last !== null) return <Navigate replace to={`/plan?${last}`} />
  return (
    <ChoosingProvider>
      <PlanScreen />
    </ChoosingProvider>
  )
}

function PlanScreen() {
  const choosing = useChoosing()
  const plan = usePlanAddress()
  const navigate = useNavigate()
  const { search } = useLocation()
  useEffect(() => rememberPlan({ search, first: plan.first, end: plan.end }), [search, plan.first, plan.end])
  useSameFocus()
  const organisation = useOrganisation()
  const calendars = useCalendars()
  const occurrences = useOccurrences(plan.first, plan.end, !plan.isYear)
  const editable = calendars.data?.filter((calendar) => calendar.mayContribute) ?? []
  const newEvent = () => editable.length > 0 && navigate(`/events/new?day=${plan.day}`)
  useKeys({
    n: newEvent,
    '[': () => plan.step(-1),
    ']': () => plan.step(1),
    '.': () => plan.go({ day: plan.today }),
    '1': () => plan.go({ view: 'lanes' }),
    '2': () => plan.go({ view: 'month' }),
    '3': () => plan.go({ view: 'week' }),
    '4': () => plan.go({ view: 'day' }),
    '5': () => plan.go({ view: 'list' }),
  })
  const days = useDays(plan.first, plan.end, !plan.isYear)
  const problem = calendars.error ?? occurrences.error ?? days.error
  // An empty week would say that nothing is on: it is not shown for one that could not be read.
  const isUnknown = occurrences.isError && !occurrences.data
  const isOld = occurrences.isError && occurrences.data !== undefined
  const again = () => {
    for (const query of [calendars, occurrences, days]) if (query.isError) void query.refetch()
  }
  const groups = useGroups().data ?? noGroups
  const shownCalendars = useMemo(
    () => calendarsOf(plan.filter, calendars.data ?? [], groups),
    [plan.filter, calendars.data, groups],
  )
  const shown = useMemo(() => {
    const ids = new Set(shownCalendars.map(({ id }) => id))
    return narrowed(occurrences.data ?? [], plan.filter).filter((one) => shownAmong(one, ids))
  }, [occurrences.data, plan.filter, shownCalendars])
  // Whatever was asked for comes at a moment of its own: what is drawn of it is drawn in pieces, so that the page goes on answering.
  const scene = useMemo(
    () => ({ plan, days: days.data ?? [], calendars: shownCalendars, groups, occurrences: shown }),
    [plan, days.data, shownCalendars, groups, shown],
  )
  const drawn = useDeferredValue(scene, null)
  // The list itself asks the same; here it says which tags there are.
  const list = useList(`${questionOf(plan, shownCalendars)}&page=${plan.page}`, plan.isYear)
  const hasArchived = calendars.data?.some((calendar) => calendar.isArchived) ?? false

  return (
    <main className={choosing.isOn ? 'plan is-choosing' : 'plan'}>
      <YearRibbon plan={plan} />
      <div className="plan-head">
        <h1 aria-live="polite">{titleOf(plan, organisation.locale)}</h1>
        {plan.view === 'lanes' && <SpanChoice plan={plan} />}
        {plan.view === 'list' && <ListSpan plan={plan} />}
        <span className="stretch" />
        <StepButtons plan={plan} />
        <div className="joined" role="group" aria-label={t('view')}>
          {(Object.keys(viewNames) as PlanView[]).map((view) => (
            <button key={view} type="button" aria-pressed={plan.view === view} onClick={() => plan.go({ view })}>
              {viewNames[view]}
            </button>
          ))}
        </div>
        {editable.length > 0 && (
          <Link className="btn btn-spruce" to={`/events/new?day=${plan.day}`}>
            {t('newEvent')}
          </Link>
        )}
      </div>
      <PlanTools
        plan={plan}
        offered={{
          ...offeredBy(plan.isYear ? [] : (occurrences.data ?? [])),
          ...(plan.isYear && { tags: list.data?.tags ?? [] }),
        }}
        calendars={calendars.data?.filter((calendar) => !calendar.isArchived) ?? []}
        mayEdit={editable.length > 0}
        mayMakeSeveral={editable.some((calendar) => calendar.mayEdit)}
        groups={[...groups.map((group) => group.name), ...(hasArchived ? [archived] : [])]}
      />
      {problem && (
        <p className="notice" role="alert">
          {problem.message} {isUnknown && t('thisIsNotShown')}
          {isOld && t('shownAsOf', { ago: sayAgo(new Date(occurrences.dataUpdatedAt).toISOString()) })}{' '}
          <button type="button" className="as-link" onClick={again}>
            {t('tryAgain')}
          </button>
        </p>
      )}
      {calendars.data?.length === 0 && <NoCalendars />}
      {calendars.data && calendars.data.length > 0 && !isUnknown && (
        <div className={occurrences.isPlaceholderData ? 'plan-body is-older' : 'plan-body'}>
          <MovingProvider>
            <Suspense fallback={<p className="soft">{plan.isYear ? t('lookingThroughTheYear') : ' '}</p>}>
              {drawn && <View {...drawn} />}
            </Suspense>
          </MovingProvider>
        </div>
      )}
      {choosing.isOn && !plan.isYear && (
        <Suspense fallback={null}>
          <ChosenBar shown={shown.filter(mayChoose)} />
        </Suspense>
      )}
    </main>
  )
}

const noGroups: Group[] = []

interface ViewProps {
  plan: Plan
  days: DayInfo[]
  calendars: Calendar[]
  groups: Group[]
  occurrences: Occurrence[]
}

/** On a phone all but the list are one: there is no room for columns. */
const View = memo(function View({ plan, days, calendars, groups, occurrences }: ViewProps) {
  const isOnPhone = useIsNarrow()
  if (plan.isYear) return <YearList plan={plan} calendars={calendars} />
  if (plan.view === 'list') return <PlanList plan={plan} calendars={calendars} occurrences={occurrences} />
  const shown = { plan, days, calendars, occurrences }
  if (isOnPhone) return <PhonePlan {...shown} />
  if (plan.view === 'lanes') return <Lanes {...shown} groups={groups} />
  return plan.view === 'month' ? <PlanMonth {...shown} /> : <TimeGrid {...shown} />
})

function titleOf(plan: Plan, locale: string): string {
  if (plan.view === 'month') return sayMonth(monthOf(plan.day), locale)
  if (plan.view === 'day') return sayDay(plan.day, locale, { weekday: 'long', day: 'numeric', month: 'long', year: 'numeric' })
  return saySpan(plan.first, addDays(plan.end, -1), locale)
}

function StepButtons({ plan }: { plan: Plan }) {
  const units = { month: 'month', day: 'day', week: 'week', list: 'weeks', lanes: plan.weeks === 1 ? 'week' : 'weeks' } as const
  const unit = plan.isYear ? 'year' : units[plan.view]
  return (
    <div className="joined" role="group" aria-label={t('time')}>
      <button type="button" aria-label={t(`earlier_${unit}`)} onClick={() => plan.step(-1)}>
        ‹
      </button>
      <button type="button" onClick={() => plan.go({ day: plan.today })}>
        {t('today')}
      </button>
      <button type="button" aria-label={t(`later_${unit}`)} onClick={() => plan.step(1)}>
        ›
      </button>
    </div>
  )
}

function SpanChoice({ plan }: { plan: Plan }) {
  return (
    <span className="span-choice" role="group" aria-label={t('weeksAcross')}>
      {spans.map((weeks) => (
        <button key={weeks} type="button" aria-pressed={plan.weeks === weeks} onClick={() => plan.go({ weeks })}>
          {t('weeksLong', { count: weeks })}
        </button>
      ))}
    </span>
  )
}

/** Four weeks day by day, or a year by pages. */
function ListSpan({ plan }: { plan: Plan }) {
  return (
    <span className="span-choice" role="group" aria-label={t('howMuchOfTheList')}>
      <button type="button" aria-pressed={!plan.isYear} onClick={() => plan.go({ isYear: false })}>
        {t('fourWeeks')}
      </button>
      <button type="button" aria-pressed={plan.isYear} onClick={() => plan.go({ isYear: true })}>
        {t('aYear')}
      </button>
    </span>
  )
}

function NoCalendars() {
  return (
    <div className="empty">
      <h2>{t('thereIsNoCalendarYet')}</h2>
      <p>{t('aCalendarHoldsTheEvents')}</p>
      <Link className="btn btn-spruce" to="/calendars/new">
        {t('newCalendar')}
      </Link>
    </div>
  )
}
