import { lazy, Suspense } from 'react'
import { Link, useNavigate } from 'react-router'
import { addDays, monthOf, sayDay, sayMonth, saySpan } from '../../shared/days'
import type { Calendar, Group } from '../types'
import { useCalendars, useGroups } from '../calendars/queries'
import { useDays, useOccurrences } from './queries'
import { useOrganisation } from '../session/queries'
import { useIsNarrow } from '../useIsNarrow'
import { useKeys } from '../useKeys'
import { Lanes } from './Lanes'
import { MovingProvider } from './moving'
import { PlanList } from './PlanList'
import { PlanMonth } from './PlanMonth'
import { archived, narrowed, PlanTools } from './PlanTools'
import { isOn } from './Slip'
import { TimeGrid } from './TimeGrid'
import { spans, usePlanAddress, type Plan, type PlanView } from './usePlanAddress'
import { YearRibbon } from './YearRibbon'
import { t } from './words'

const PhonePlan = lazy(() => import('./PhonePlan').then(({ PhonePlan: shown }) => ({ default: shown })))
const YearList = lazy(() => import('./YearList').then(({ YearList: shown }) => ({ default: shown })))

const viewNames: Record<PlanView, string> = {
  lanes: t('lanes'),
  month: t('month'),
  week: t('week'),
  day: t('day'),
  list: t('list'),
}

export function PlanPage() {
  const plan = usePlanAddress()
  const navigate = useNavigate()
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
  const isOnPhone = useIsNarrow() && plan.view !== 'list'
  const days = useDays(plan.first, plan.end, !plan.isYear)
  const problem = calendars.error ?? occurrences.error ?? days.error
  const groups = useGroups().data ?? []
  const shownCalendars = inGroup(calendars.data ?? [], groups, plan.filter.group).filter(
    (one) => plan.filter.calendar === '' || one.plate === plan.filter.calendar,
  )
  const shown = narrowed(occurrences.data ?? [], plan.filter).filter((one) => shownCalendars.some(({ id }) => isOn(one, id)))
  const hasArchived = calendars.data?.some((calendar) => calendar.isArchived) ?? false

  return (
    <main className="plan">
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
        occurrences={plan.isYear ? [] : (occurrences.data ?? [])}
        calendars={calendars.data?.filter((calendar) => !calendar.isArchived) ?? []}
        mayEdit={editable.length > 0}
        mayMakeSeveral={editable.some((calendar) => calendar.mayEdit)}
        groups={[...groups.map((group) => group.name), ...(hasArchived ? [archived] : [])]}
      />
      {problem && (
        <p className="notice" role="alert">
          {problem.message}
        </p>
      )}
      {calendars.data?.length === 0 && <NoCalendars />}
      {calendars.data && calendars.data.length > 0 && (
        <div className={occurrences.isPlaceholderData ? 'plan-body is-older' : 'plan-body'}>
          <MovingProvider>
            {isOnPhone && (
              <Suspense fallback={null}>
                <PhonePlan plan={plan} days={days.data ?? []} calendars={shownCalendars} occurrences={shown} />
              </Suspense>
            )}
            {!isOnPhone && plan.view === 'lanes' && (
              <Lanes plan={plan} days={days.data ?? []} calendars={shownCalendars} groups={groups} occurrences={shown} />
            )}
            {!isOnPhone && plan.view === 'month' && (
              <PlanMonth plan={plan} days={days.data ?? []} calendars={shownCalendars} occurrences={shown} />
            )}
            {!isOnPhone && (plan.view === 'week' || plan.view === 'day') && (
              <TimeGrid plan={plan} days={days.data ?? []} calendars={shownCalendars} occurrences={shown} />
            )}
            {plan.view === 'list' && !plan.isYear && <PlanList plan={plan} calendars={shownCalendars} occurrences={shown} />}
            {plan.isYear && (
              <Suspense fallback={<p className="soft">{t('lookingThroughTheYear')}</p>}>
                <YearList plan={plan} calendars={shownCalendars} />
              </Suspense>
            )}
          </MovingProvider>
        </div>
      )}
    </main>
  )
}

/** The calendars of a group; without one all that are in use. */
function inGroup(calendars: Calendar[], groups: Group[], name: string): Calendar[] {
  if (name === archived) return calendars.filter((calendar) => calendar.isArchived)
  const group = groups.find((one) => one.name === name)
  return calendars.filter((calendar) => !calendar.isArchived && (!group || group.calendars.includes(calendar.id)))
}

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
          {weeks}
        </button>
      ))}
      {t('weeksBeside', { count: plan.weeks })}
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
