import { useState } from 'react'
import { useCalendars } from '../calendars/queries'
import type { Problem } from '../Problem'
import { Refusal } from '../Refusal'
import type { Landing, SourcePreview, SourceRule, SourceRules } from '../types'
import { asked, moved, newRule, wordsOf } from './rules'
import { t } from './words'

interface RuleListProps {
  rules: SourceRules
  problem: Problem | null
  counts: SourcePreview['rules']
  /** The calendar that it fills alone. */
  own: string | null
  change: (part: Partial<SourceRules>) => void
}

/** Which entry goes where: the first rule that fits decides. */
export function RuleList({ rules, problem, counts, own, change }: RuleListProps) {
  const set = (place: number, rule: SourceRule) => change({ rules: rules.rules.map((one, at) => (at === place ? rule : one)) })
  return (
    <>
      <h2>{t('whichGoesWhere')}</h2>
      <p className="soft">{t('theFirstThatFits')}</p>
      <ol className="plain-list source-rules">
        {rules.rules.map((rule, place) => (
          <Rule
            // Rules have no names: those that are moved are drawn anew.
            key={`${place} ${rules.rules.length}`}
            place={place}
            rule={rule}
            isLast={place === rules.rules.length - 1}
            count={counts[place]}
            own={own}
            refusal={problem?.on(`rules.${place}.words`) ?? problem?.on(`rules.${place}.landing`)}
            onChange={(changed) => set(place, changed)}
            onMove={(to) => change({ rules: moved(rules.rules, place, to) })}
            onRemove={() => change({ rules: rules.rules.filter((_, at) => at !== place) })}
          />
        ))}
        <li>
          <span className="rule-place" aria-hidden="true">
            ·
          </span>
          <div className="rule-says">
            {t('allElse')} → <LandingChoice landing={rules.else} own={own} onChange={(landing) => change({ else: landing })} />
            <Count count={counts[rules.rules.length]} />
            <Refusal text={problem?.on('else')} />
          </div>
        </li>
      </ol>
      <button type="button" className="btn btn-outline-ink" onClick={() => change({ rules: [...rules.rules, newRule] })}>
        {t('anotherRule')}
      </button>
    </>
  )
}

function Count({ count }: { count: SourcePreview['rules'][number] | undefined }) {
  if (!count) return null
  return (
    <p className="soft rule-count">
      {t('entries', { count: count.count })}
      {count.next !== '' && ` · ${t('nextIs', { next: count.next })}`}
    </p>
  )
}

interface RuleProps {
  place: number
  rule: SourceRule
  isLast: boolean
  count: SourcePreview['rules'][number] | undefined
  own: string | null
  refusal: string | undefined
  onChange: (rule: SourceRule) => void
  onMove: (to: number) => void
  onRemove: () => void
}

const bys = ['titleBegins', 'titleHas', 'category', 'placeHas'] as const

function Rule({ place, rule, isLast, count, own, refusal, onChange, onMove, onRemove }: RuleProps) {
  // Commas stay while they are typed.
  const [text, setText] = useState(rule.words.join(', '))
  const number = place + 1
  return (
    <li>
      <span className="rule-place" aria-hidden="true">
        {number}
      </span>
      <div className="rule-says" role="group" aria-label={t('ruleNumber', { number })}>
        <select
          className="form-select"
          aria-label={t('looksAt')}
          value={rule.by}
          onChange={(event) => onChange({ ...rule, by: event.target.value as SourceRule['by'] })}
        >
          {bys.map((by) => (
            <option key={by} value={by}>
              {t(`by_${by}`)}
            </option>
          ))}
        </select>{' '}
        <input
          className="form-control rule-words"
          aria-label={t('wordsWithCommas')}
          placeholder={t('wordsExample')}
          value={text}
          aria-invalid={refusal !== undefined}
          onChange={(event) => {
            setText(event.target.value)
            onChange({ ...rule, words: wordsOf(event.target.value) })
          }}
        />
        <div className="rule-landing">
          → <LandingChoice landing={rule.landing} own={own} onChange={(landing) => onChange({ ...rule, landing })} />
          {rule.by === 'titleBegins' && rule.landing.to !== 'leaveOut' && (
            <label className="rule-without">
              <input
                type="checkbox"
                checked={rule.withoutWord ?? false}
                onChange={(event) => onChange({ ...rule, withoutWord: event.target.checked })}
              />{' '}
              {t('withoutTheWord')}
            </label>
          )}
        </div>
        <Count count={count} />
        <Refusal text={refusal} />
      </div>
      <span className="rule-acts">
        <button
          type="button"
          className="as-link"
          aria-label={t('earlier', { number })}
          disabled={place === 0}
          onClick={() => onMove(place - 1)}
        >
          ↑
        </button>
        <button
          type="button"
          className="as-link"
          aria-label={t('later', { number })}
          disabled={isLast}
          onClick={() => onMove(place + 1)}
        >
          ↓
        </button>
        <button type="button" className="as-link" aria-label={t('removeRule', { number })} onClick={onRemove}>
          ×
        </button>
      </span>
    </li>
  )
}

interface LandingChoiceProps {
  landing: Landing
  own: string | null
  onChange: (landing: Landing) => void
}

/** On which calendar, as what; or nowhere; or it is asked. */
export function LandingChoice({ landing, own, onChange }: LandingChoiceProps) {
  const offered = (useCalendars().data ?? []).filter(
    (one) => (one.mayEdit && (one.mayContribute || one.id === own)) || one.id === landing.calendarId,
  )
  return (
    <>
      <select
        className="form-select"
        aria-label={t('goesTo')}
        value={landing.to === 'calendar' ? (landing.calendarId ?? '') : landing.to}
        onChange={({ target: { value } }) =>
          onChange(
            value === 'ask'
              ? asked
              : value === 'leaveOut'
                ? { ...asked, to: 'leaveOut' }
                : { ...landing, to: 'calendar', calendarId: value },
          )
        }
      >
        <option value="ask">{t('askMe')}</option>
        <option value="leaveOut">{t('leaveOut')}</option>
        {offered.map((one) => (
          <option key={one.id} value={one.id}>
            {t('onCalendar', { plate: one.plate, name: one.name })}
          </option>
        ))}
      </select>
      {landing.to === 'calendar' && (
        <>
          {' '}
          <select
            className="form-select"
            aria-label={t('asWhat')}
            value={landing.as ?? 'asItCame'}
            onChange={(event) => onChange({ ...landing, as: event.target.value as NonNullable<Landing['as']> })}
          >
            {(['asItCame', 'deadline', 'event'] as const).map((as) => (
              <option key={as} value={as}>
                {t(`as_${as}`)}
              </option>
            ))}
          </select>
        </>
      )}
    </>
  )
}
