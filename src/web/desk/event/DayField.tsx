import { useEffect, useRef, useState } from 'react'
import { DayPicker } from 'react-day-picker'
import { addDays, sayDay, type Day } from '../../shared/days'
import { useOrganisation } from '../session/queries'
import { call } from '../api'
import { Refusal } from '../Refusal'
import { useTyped } from '../useTyped'
import { t } from './words'

interface DayFieldProps {
  id: string
  label: string
  value: Day | null
  today: Day
  /** A day without a year is the one nearest to this; today where it is left out. */
  near?: Day
  refusal?: string
  onChange: (day: Day | null) => void
}

/** A day, typed as people type it or chosen from a small month. The arrow keys move it by a day. */
export function DayField({ id, label, value, today, near, refusal, onChange }: DayFieldProps) {
  const { locale } = useOrganisation()
  const [isOpen, setOpen] = useState(false)
  const say = (day: Day) => sayDay(day, locale, { weekday: 'short', day: 'numeric', month: 'short', year: 'numeric' })
  const typed = useTyped<Day>(
    async (text, signal) => (await call('POST', '/typed/day', { text, near: near ?? null }, { signal })).days,
    onChange,
  )
  const choose = (day: Day) => {
    typed.settle()
    onChange(day)
  }
  const move = (event: React.KeyboardEvent) => {
    const step = { ArrowUp: 1, ArrowDown: -1 }[event.key]
    if (!step || !value) return
    event.preventDefault()
    choose(addDays(value, step))
  }
  const why = typed.isUnread && typed.choices.length === 0 && t('typedIsNoDayWrite', { typed: typed.text, example: say(today) })
  return (
    <span className="field-with-button">
      <input
        id={id}
        className="form-control day-field"
        aria-label={label}
        aria-invalid={typed.isUnread || refusal !== undefined}
        aria-describedby={`${id}-refusal`}
        autoComplete="off"
        value={typed.text ?? (value ? say(value) : '')}
        onChange={(event) => typed.type(event.target.value)}
        onFocus={(event) => typed.enter(event.target.value)}
        onBlur={typed.leave}
        onKeyDown={move}
      />
      <button
        type="button"
        className="day-open"
        aria-label={t('chooseFromAMonth', { label })}
        aria-expanded={isOpen}
        onClick={() => setOpen(!isOpen)}
      >
        <span aria-hidden="true" />
      </button>
      {isOpen && (
        <MonthPopup
          value={value ?? today}
          onClose={() => setOpen(false)}
          onChoose={(day) => {
            choose(day)
            setOpen(false)
          }}
        />
      )}
      {typed.choices.length > 0 && (
        <span className="which-day">
          {t('whichDayIsMeant')}{' '}
          {typed.choices.map((day) => (
            <button key={day} type="button" className="as-link" onClick={() => choose(day)}>
              {say(day)}
            </button>
          ))}
        </span>
      )}
      <Refusal id={`${id}-refusal`} text={typed.problem?.message ?? (why || refusal)} />
    </span>
  )
}

function MonthPopup({ value, onChoose, onClose }: { value: Day; onChoose: (day: Day) => void; onClose: () => void }) {
  const { locale, firstDayOfWeek } = useOrganisation()
  const box = useRef<HTMLDivElement>(null)
  useEffect(() => {
    const onPointerDown = (event: PointerEvent) => {
      if (event.target instanceof Node && !box.current?.parentElement?.contains(event.target)) onClose()
    }
    document.addEventListener('pointerdown', onPointerDown)
    return () => document.removeEventListener('pointerdown', onPointerDown)
  }, [onClose])
  const asLocal = (day: Day) => new Date(Number(day.slice(0, 4)), Number(day.slice(5, 7)) - 1, Number(day.slice(8)))
  const asDay = (date: Date): Day =>
    `${date.getFullYear()}-${String(date.getMonth() + 1).padStart(2, '0')}-${String(date.getDate()).padStart(2, '0')}`
  const say = (date: Date, options: Intl.DateTimeFormatOptions) => sayDay(asDay(date), locale, options)
  return (
    <div ref={box} className="month-popup" onKeyDown={(event) => event.key === 'Escape' && onClose()}>
      <DayPicker
        mode="single"
        autoFocus
        required
        selected={asLocal(value)}
        defaultMonth={asLocal(value)}
        weekStartsOn={(firstDayOfWeek % 7) as 0 | 1 | 2 | 3 | 4 | 5 | 6}
        onSelect={(date) => onChoose(asDay(date))}
        formatters={{
          formatCaption: (date) => say(date, { month: 'long', year: 'numeric' }),
          formatWeekdayName: (date) => say(date, { weekday: 'narrow' }),
        }}
        labels={{
          labelDayButton: (date) => say(date, { weekday: 'long', day: 'numeric', month: 'long', year: 'numeric' }),
          labelPrevious: () => t('earlierMonth'),
          labelNext: () => t('laterMonth'),
          labelNav: () => t('otherMonths'),
          labelGrid: (date) => say(date, { month: 'long', year: 'numeric' }),
          labelWeekday: (date) => say(date, { weekday: 'long' }),
        }}
      />
    </div>
  )
}
