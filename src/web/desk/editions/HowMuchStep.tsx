import type { Day } from '../../shared/days'
import type { Problem } from '../Problem'
import type { ShownField, WindowDraft } from '../types'
import { useLists } from '../lists/queries'
import { Refusal } from '../Refusal'
import type { Draft } from './draft'
import { Choice, Step, Tick } from './Step'
import { t } from './words'

const fieldWords: Record<ShownField, string> = {
  place: t('place'),
  category: t('category'),
  picture: t('picture'),
  description: t('text'),
  links: t('links'),
  files: t('files'),
  contact: t('contact'),
  people: t('people'),
}

const allFields = Object.keys(fieldWords) as ShownField[]

interface HowMuchStepProps {
  draft: Draft
  isStandard: boolean
  problem: Problem | null
  onChange: (part: Partial<Draft>) => void
}

/** For whom, how much of each entry, from when to when. */
export function HowMuchStep({ draft, isStandard, problem, onChange }: HowMuchStepProps) {
  const window = (part: Partial<WindowDraft>) => onChange({ window: { ...draft.window, ...part } })
  const counts = draft.window.to === 'days' || draft.window.to === 'weeks' || draft.window.to === 'months'
  const fields = draft.fields ?? allFields
  return (
    <Step number={2} title={t('howMuch')} about={t('forWhomFromWhenTo')}>
      <p className="sentence">
        {isStandard ? (
          t('forWhoeverTheCalendarIs')
        ) : (
          <>
            {t('for')}{' '}
            <Choice
              label={t('forWhom')}
              value={draft.audience}
              options={{ everyone: t('everyone'), link: t('thoseWithTheLink'), members: t('members') }}
              onChange={(audience) => onChange({ audience, withUnfinished: audience === 'members' && draft.withUnfinished })}
            />
          </>
        )}{' '}
        {t('atMost')}{' '}
        <Choice
          label={t('howMuchOfEachEntry')}
          value={draft.cap ?? 'complete'}
          options={{ complete: t('allThereIs'), headline: t('theHeadline'), times: t('whenItIsBusy') }}
          onChange={(cap) => onChange({ cap })}
        />
      </p>
      <p className="sentence">
        {t('itTakes')}{' '}
        <Choice
          label={t('whatItTakes')}
          value={draft.kinds ?? 'both'}
          options={{ both: t('eventsAndDeadlines'), events: t('eventsOnly'), deadlines: t('deadlinesOnly') }}
          onChange={(kinds) => onChange({ kinds })}
        />{' '}
        {t('at')}{' '}
        <AtPlace
          value={draft.atPlace ?? null}
          onChange={(atPlace) => onChange({ atPlace, ...(atPlace ? { feed: 'dates' } : {}) })}
        />{' '}
        {t('ledBy')}{' '}
        <OfPerson
          value={draft.ofPerson ?? null}
          onChange={(ofPerson) => onChange({ ofPerson, ...(ofPerson ? { feed: 'dates' } : {}) })}
        />{' '}
        {t('fromWhat')}{' '}
        <Choice
          label={t('fromWhen')}
          value={draft.window.from ?? 'beginning'}
          options={{
            beginning: t('theBeginning'),
            now: t('now'),
            today: t('today'),
            week: t('startOfThisWeek'),
            month: t('startOfThisMonth'),
            term: t('startOfTerm'),
            date: t('aDay'),
          }}
          onChange={(from) => window({ from })}
        />
        {draft.window.from === 'date' && (
          <InlineDay label={t('firstDay')} value={draft.window.fromDate} onChange={(fromDate) => window({ fromDate })} />
        )}{' '}
        {t('to')}{' '}
        {counts && (
          <input
            type="number"
            min="1"
            className="form-control inline-number"
            aria-label={t('howMany')}
            value={draft.window.count ?? ''}
            onChange={(event) => window({ count: event.target.value === '' ? null : Number(event.target.value) })}
          />
        )}{' '}
        <Choice
          label={t('toWhen')}
          value={draft.window.to ?? 'open'}
          options={{
            days: t('daysAhead'),
            weeks: t('weeksAhead'),
            months: t('monthsAhead'),
            endOfMonth: t('endOfMonth'),
            endOfTerm: t('endOfTerm'),
            endOfYear: t('endOfTheYearPlan'),
            date: t('aDay'),
            open: t('noEnd'),
          }}
          onChange={(to) => window({ to, count: draft.window.count ?? 2 })}
        />
        {draft.window.to === 'date' && (
          <InlineDay label={t('lastDay')} value={draft.window.toDate} onChange={(toDate) => window({ toDate })} />
        )}{' '}
        <span className="kept-together">
          {t('atMost')}{' '}
          <input
            type="number"
            min="1"
            className="form-control inline-number"
            aria-label={t('atMostSoManyEntries')}
            placeholder={t('all')}
            value={draft.limit ?? ''}
            onChange={(event) => onChange({ limit: event.target.value === '' ? null : Number(event.target.value) })}
          />{' '}
          {t('entries')}
        </span>
      </p>
      {[
        'window.count',
        'window.fromDate',
        'window.toDate',
        'limit',
        'cap',
        'audience',
        'withStaffTimes',
        'atPlace',
        'ofPerson',
      ].map((field) => (
        <Refusal key={field} text={problem?.on(field)} />
      ))}
      <div className="ticks">
        <Tick
          checked={draft.window.withPast ?? true}
          disabled={draft.window.from === 'now'}
          onChange={(withPast) => window({ withPast })}
        >
          {t('withWhatIsOver')}
        </Tick>
        <Tick checked={draft.withCancelled} onChange={(withCancelled) => onChange({ withCancelled })}>
          {t('withWhatIsCancelled')}
        </Tick>
        <Tick checked={draft.withBreaks} onChange={(withBreaks) => onChange({ withBreaks })}>
          {t('breaksOfTheYearPlan')}
        </Tick>
        {draft.audience === 'members' && !isStandard && (
          <Tick checked={draft.withUnfinished} onChange={(withUnfinished) => onChange({ withUnfinished })}>
            {t('draftsAndWhatWaitsFor')}
          </Tick>
        )}
        {draft.audience === 'members' && !isStandard && (
          <Tick
            checked={draft.withStaffTimes ?? false}
            onChange={(withStaffTimes) => onChange({ withStaffTimes, ...(withStaffTimes ? { feed: 'dates' } : {}) })}
          >
            {t('withSetUpAndClearAway')}
          </Tick>
        )}
        <Tick checked={draft.mergesLookAlikes} onChange={(mergesLookAlikes) => onChange({ mergesLookAlikes })}>
          {t('lookAlikesBecomeOne')}
        </Tick>
        <Tick checked={draft.tellsPlatesOfBusy} onChange={(tellsPlatesOfBusy) => onChange({ tellsPlatesOfBusy })}>
          {t('platesOnBusyTimes')}
        </Tick>
      </div>
      <p className="soft">{t('theSameEventOnSeveral')}</p>
      <fieldset className="ticks">
        <legend>{t('shownOfEachEntryWhere')}</legend>
        {allFields.map((field) => (
          <Tick
            key={field}
            checked={fields.includes(field)}
            onChange={(checked) => {
              const next = allFields.filter((one) => (one === field ? checked : fields.includes(one)))
              onChange({ fields: next.length === allFields.length ? null : next })
            }}
          >
            {fieldWords[field]}
          </Tick>
        ))}
      </fieldset>
    </Step>
  )
}

interface OfListProps {
  value: string | null
  onChange: (id: string | null) => void
}

/** A place of the list, at which everything of the edition is. */
function AtPlace(props: OfListProps) {
  const places = useLists().data?.places ?? []
  return <OneOf {...props} label={t('atWhichPlace')} any={t('anyPlace')} gone={t('aPlaceThatIsGone')} offered={places} />
}

/** A member who is responsible for everything of the edition. */
function OfPerson(props: OfListProps) {
  const members = useLists().data?.members ?? []
  return <OneOf {...props} label={t('ofWhichPerson')} any={t('anybody')} gone={t('aPersonWhoIsGone')} offered={members} />
}

interface OneOfProps extends OfListProps {
  label: string
  any: string
  /** What was chosen, and is offered no more. */
  gone: string
  offered: { id: string; name: string }[]
}

function OneOf({ value, onChange, label, any, gone, offered }: OneOfProps) {
  return (
    <select
      className="form-select inline-choice"
      aria-label={label}
      value={value ?? ''}
      onChange={(event) => onChange(event.target.value || null)}
    >
      <option value="">{any}</option>
      {value && !offered.some((one) => one.id === value) && <option value={value}>{gone}</option>}
      {offered.map((one) => (
        <option key={one.id} value={one.id}>
          {one.name}
        </option>
      ))}
    </select>
  )
}

interface InlineDayProps {
  label: string
  value: Day | null | undefined
  onChange: (day: Day | undefined) => void
}

/** A day in a sentence. */
function InlineDay({ label, value, onChange }: InlineDayProps) {
  return (
    <input
      type="date"
      className="form-control inline-day"
      aria-label={label}
      value={value ?? ''}
      onChange={(event) => onChange(event.target.value || undefined)}
    />
  )
}
