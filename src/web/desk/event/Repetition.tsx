import { addDays, monthOf, sayDay, weekdayOf, weekOf, type Day } from '../../shared/days'
import type { Problem } from '../Problem'
import { useOrganisation } from '../session/queries'
import { useYearPlans } from '../year/queries'
import { DayField } from './DayField'
import { Refusal } from '../Refusal'
import { positionOf, type Draft, type Pattern } from './draft'
import { t } from './words'

interface RepetitionProps {
  draft: Draft
  set: (change: Partial<Draft>) => void
  problem: Problem | null
  today: Day
  /** The rule as the server wrote it, to go on from when somebody wants to write it as text. */
  rule: string | null
}

const units = ['daily', 'weekly', 'monthly', 'yearly'] as const

/** "every 2 weeks on Tu Th": how often, and on which days. */
export function Repetition({ draft, set, problem, today, rule }: RepetitionProps) {
  const cycle = useCycleOn(draft.date ?? today)
  const choose = (pattern: Pattern) => {
    if (pattern === 'text') set({ pattern, ruleText: rule ?? 'FREQ=WEEKLY' })
    else if (pattern === 'cycle') set({ pattern, weekdays: cycle?.unit === 'weeks' && draft.date ? [weekdayOf(draft.date)] : [] })
    else
      set({
        pattern,
        ...(draft.weekdays.length === 0 ? { weekdays: [weekdayOf(draft.date ?? today)] } : {}),
        ...followStart(draft),
      })
  }
  const isOne = draft.interval.trim() === '1'
  return (
    <>
      {draft.pattern !== 'once' && draft.pattern !== 'cycle' && draft.pattern !== 'text' && (
        <input
          className="form-control number-field"
          aria-label={t(`everyHowMany_${draft.pattern}`)}
          inputMode="numeric"
          value={draft.interval}
          aria-invalid={problem?.on('repeat.interval') !== undefined}
          onChange={(event) => set({ interval: event.target.value })}
        />
      )}
      <select
        className="form-select"
        aria-label={t('daysWeeksMonthsOrYears')}
        value={draft.pattern}
        onChange={(event) => choose(event.target.value as Pattern)}
      >
        {units.map((pattern) => (
          <option key={pattern} value={pattern}>
            {t(`unit_${pattern}`, { count: isOne ? 1 : 2 })}
          </option>
        ))}
        {(cycle || draft.pattern === 'cycle') && (
          <option value="cycle">{cycle?.unit === 'weeks' ? t('weekOfTheCycle') : t('dayOfTheCycle')}</option>
        )}
        <option value="text">{t('byARule')}</option>
      </select>
      <Refusal text={problem?.on('repeat.interval')} />
      {draft.pattern === 'weekly' && <span>{t('onWeekdays')}</span>}
      {draft.pattern === 'cycle' && (
        <CycleNumbers draft={draft} set={set} length={cycle?.length ?? 10} unit={cycle?.unit ?? 'days'} />
      )}
      {(draft.pattern === 'weekly' || (draft.pattern === 'cycle' && cycle?.unit === 'weeks')) && (
        <WeekdayTicks value={draft.weekdays} today={today} onChange={(weekdays) => set({ weekdays })} />
      )}
      {(draft.pattern === 'monthly' || draft.pattern === 'yearly') && <PositionChoice draft={draft} set={set} />}
      {draft.pattern === 'text' && (
        <input
          className="form-control rule-field"
          aria-label={t('ruleAsText')}
          spellCheck={false}
          value={draft.ruleText}
          aria-invalid={problem?.on('repeat.text') !== undefined}
          onChange={(event) => set({ ruleText: event.target.value })}
        />
      )}
      <Refusal
        text={
          problem?.on('repeat.weekdays') ??
          problem?.on('repeat.by') ??
          problem?.on('repeat.numbers') ??
          problem?.on('repeat.text')
        }
      />
    </>
  )
}

/** While nobody chose another position, it is the one of the first day. */
function followStart(draft: Draft): Partial<Draft> {
  return draft.date && draft.pattern !== 'monthly' && draft.pattern !== 'yearly' ? positionOf(draft.date) : {}
}

function useCycleOn(day: Day) {
  const plans = useYearPlans().data?.plans ?? []
  return plans.find((plan) => plan.first <= day && day <= plan.last)?.cycle ?? null
}

interface WeekdayTicksProps {
  value: number[]
  today: Day
  onChange: (weekdays: number[]) => void
}

export function WeekdayTicks({ value, today, onChange }: WeekdayTicksProps) {
  const { locale, firstDayOfWeek } = useOrganisation()
  const first = weekOf(today, firstDayOfWeek)
  const toggle = (weekday: number) =>
    onChange(value.includes(weekday) ? value.filter((one) => one !== weekday) : [...value, weekday])
  return (
    <span className="weekdays" role="group" aria-label={t('weekdays')}>
      {Array.from({ length: 7 }, (_, index) => addDays(first, index)).map((day) => (
        <label key={day} className={value.includes(weekdayOf(day)) ? 'is-on' : undefined}>
          <input
            type="checkbox"
            className="visually-hidden"
            checked={value.includes(weekdayOf(day))}
            onChange={() => toggle(weekdayOf(day))}
            aria-label={sayDay(day, locale, { weekday: 'long' })}
          />
          <span aria-hidden="true">{sayDay(day, locale, { weekday: 'short' }).slice(0, 2)}</span>
        </label>
      ))}
    </span>
  )
}

interface CycleNumbersProps {
  draft: Draft
  set: (change: Partial<Draft>) => void
  length: number
  unit: 'days' | 'weeks'
}

function CycleNumbers({ draft, set, length, unit }: CycleNumbersProps) {
  const toggle = (number: number) =>
    set({
      numbers: draft.numbers.includes(number) ? draft.numbers.filter((one) => one !== number) : [...draft.numbers, number],
    })
  return (
    <span className="weekdays" role="group" aria-label={unit === 'weeks' ? t('weeksOfTheCycle') : t('daysOfTheCycle')}>
      {Array.from({ length }, (_, index) => index + 1).map((number) => {
        const name = unit === 'weeks' ? String.fromCharCode(64 + number) : String(number)
        return (
          <label key={number} className={draft.numbers.includes(number) ? 'is-on' : undefined}>
            <input
              type="checkbox"
              className="visually-hidden"
              checked={draft.numbers.includes(number)}
              onChange={() => toggle(number)}
              aria-label={unit === 'weeks' ? t('weekName', { name }) : t('dayName', { name })}
            />
            <span aria-hidden="true">{name}</span>
          </label>
        )
      })}
    </span>
  )
}

const ordinals: Record<number, string> = {
  1: t('first'),
  2: t('second'),
  3: t('third'),
  4: t('fourth'),
  5: t('fifth'),
  [-1]: t('last'),
}

/** "on the second Tuesday": the ways to say the first day within its month come first, then all others. */
function PositionChoice({ draft, set }: { draft: Draft; set: (change: Partial<Draft>) => void }) {
  const { locale } = useOrganisation()
  const day = draft.date ?? '2026-01-01'
  const weekdayName = (weekday: number) => sayDay(addDays('2024-01-01', weekday - 1), locale, { weekday: 'long' })
  const say = (value: string) => {
    const [by, one, other] = value.split(':')
    if (by === 'day') return one === '-1' ? t('theLastDay') : t('theNth', { place: Number(one) })
    const which = ordinals[Number(one)]
    return by === 'workday' ? t('theNthWorkday', { which }) : t('theNthWeekday', { which, weekday: weekdayName(Number(other)) })
  }
  const current =
    draft.by === 'day'
      ? `day:${draft.monthDay}`
      : draft.by === 'workday'
        ? `workday:${draft.ordinal}`
        : `weekday:${draft.ordinal}:${draft.weekday}`
  const choose = (value: string) => {
    const [by, one, other] = value.split(':')
    if (by === 'day') set({ by, monthDay: Number(one) })
    else if (by === 'workday') set({ by, ordinal: Number(one) })
    else set({ by: 'weekday', ordinal: Number(one), weekday: Number(other) })
  }
  const ofStart = waysToSay(day)
  const groups = [
    { label: t('asTheFirstDay'), options: [...new Set([...ofStart, current])] },
    ...Object.keys(ordinals).map((ordinal) => ({
      label: ordinals[Number(ordinal)] ?? '',
      options: [1, 2, 3, 4, 5, 6, 7].map((weekday) => `weekday:${ordinal}:${weekday}`),
    })),
    { label: t('theDayOfTheMonth'), options: Array.from({ length: 31 }, (_, index) => `day:${index + 1}`) },
  ].map(({ label, options }, index) => ({
    label,
    options: index === 0 ? options : options.filter((one) => one !== current && !ofStart.includes(one)),
  }))
  return (
    <>
      <span>{t('onDay')}</span>
      <select
        className="form-select"
        aria-label={t('whichDayOfTheMonth')}
        value={current}
        onChange={(event) => choose(event.target.value)}
      >
        {groups.map(({ label, options }) => (
          <optgroup key={label} label={label}>
            {options.map((option) => (
              <option key={option} value={option}>
                {say(option)}
              </option>
            ))}
          </optgroup>
        ))}
      </select>
      {draft.pattern === 'yearly' && (
        <>
          <span>{t('ofMonth')}</span>
          <select
            className="form-select"
            aria-label={t('month')}
            value={draft.month}
            onChange={(event) => set({ month: Number(event.target.value) })}
          >
            {Array.from({ length: 12 }, (_, index) => index + 1).map((month) => (
              <option key={month} value={month}>
                {sayDay(`2026-${String(month).padStart(2, '0')}-01`, locale, { month: 'long' })}
              </option>
            ))}
          </select>
        </>
      )}
      {draft.by === 'day' && draft.monthDay > 28 && (
        <select
          className="form-select"
          aria-label={t('inMonthsWithoutThatDay')}
          value={draft.skip}
          onChange={(event) => set({ skip: event.target.value as Draft['skip'] })}
        >
          <option value="omit">{t('notInShorterMonths')}</option>
          <option value="backward">{t('inShorterMonthsOnThe')}</option>
          <option value="forward">{t('inShorterMonthsOnTheDay')}</option>
        </select>
      )}
    </>
  )
}

function waysToSay(day: Day): string[] {
  const { monthDay, ordinal, weekday } = positionOf(day)
  const isLast = monthOf(addDays(day, 7)) !== monthOf(day)
  const ways = [`day:${monthDay}`, `weekday:${ordinal}:${weekday}`]
  if (isLast) ways.push(`weekday:-1:${weekday}`)
  return [...ways, 'workday:1', 'workday:-1', 'day:-1']
}

type EndingProps = Omit<RepetitionProps, 'rule'>

/** "until 18 December", and what happens in breaks. */
export function Ending({ draft, set, problem, today }: EndingProps) {
  if (draft.pattern === 'text') return <InBreaksChoice draft={draft} set={set} />
  return (
    <p className="when-line">
      <select
        className="form-select"
        aria-label={t('howItEnds')}
        value={draft.ends}
        onChange={(event) => {
          const ends = event.target.value as Draft['ends']
          set({ ends, ...(ends === 'on' && !draft.until && draft.date ? { until: addDays(draft.date, 70) } : {}) })
        }}
      >
        <option value="never">{draft.pattern === 'cycle' ? t('asLongAsTheYear') : t('withoutEnd')}</option>
        <option value="on">{t('untilDay')}</option>
        <option value="after">{t('forSoMany')}</option>
      </select>
      {draft.ends === 'on' && (
        <DayField
          id="until"
          label={t('until')}
          value={draft.until}
          today={today}
          refusal={problem?.on('repeat.until')}
          onChange={(until) => set({ until })}
        />
      )}
      {draft.ends === 'after' && (
        <>
          <input
            className="form-control number-field"
            aria-label={t('numberOfDates')}
            inputMode="numeric"
            value={draft.count}
            aria-invalid={problem?.on('repeat.count') !== undefined}
            onChange={(event) => set({ count: event.target.value })}
          />
          {draft.pattern === 'cycle' || draft.inBreaks === 'ignore' ? (
            <span>{t('datesOfSeries')}</span>
          ) : (
            <select
              className="form-select"
              aria-label={t('whatIsCounted')}
              value={draft.countsTaking ? 'taking' : 'all'}
              onChange={(event) => set({ countsTaking: event.target.value === 'taking' })}
            >
              <option value="taking">{t('datesThatTakePlace')}</option>
              <option value="all">{t('datesByCount')}</option>
            </select>
          )}
          <Refusal text={problem?.on('repeat.count')} />
        </>
      )}
      {draft.pattern !== 'cycle' && <InBreaksChoice draft={draft} set={set} />}
    </p>
  )
}

function InBreaksChoice({ draft, set }: { draft: Draft; set: (change: Partial<Draft>) => void }) {
  return (
    <>
      <span>{t('andInBreaksIt')}</span>
      <select
        className="form-select"
        aria-label={t('inBreaks')}
        value={draft.inBreaks}
        onChange={(event) => set({ inBreaks: event.target.value as Draft['inBreaks'] })}
      >
        <option value="skip">{t('fallsOut')}</option>
        <option value="move">{t('movesToTheNextOpen')}</option>
        <option value="ignore">{t('takesPlaceAllTheSame')}</option>
      </select>
    </>
  )
}
