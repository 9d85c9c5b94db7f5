import { useEffect, useRef, useState } from 'react'
import { DayPicker } from 'react-day-picker'
import { addDays, sayDay, type Day } from '../../shared/days'
import { readDay } from '../../shared/typed'
import { useOrganisation } from '../session/queries'
import { Refusal } from '../Refusal'
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
export function DayField({ id, label, value, today, near = today, refusal, onChange }: DayFieldProps) {
  const { locale } = useOrganisation()
  const [typed, setTyped] = useState<string | null>(null)
  const [isOpen, setOpen] = useState(false)
  const say = (day: Day) => sayDay(day, locale, { weekday: 'short', day: 'numeric', month: 'short', year: 'numeric' })
  const unread = typed !== null && typed.trim() !== '' && readDay(typed, locale, near) === null

  const type = (text: string) => {
    setTyped(text)
    onChange(readDay(text, locale, near))
  }
  const move = (event: React.KeyboardEvent) => {
    const step = { ArrowUp: 1, ArrowDown: -1 }[event.key]
    if (!step || !value) return
    event.preventDefault()
    setTyped(null)
    onChange(addDays(value, step))
  }
  return (
    <span className="field-with-button">
      <input
        id={id}
        className="form-control day-field"
        aria-label={label}
        aria-invalid={unread || refusal !== undefined}
        aria-describedby={`${id}-refusal`}
        autoComplete="off"
        value={typed ?? (value ? say(value) : '')}
        onChange={(event) => type(event.target.value)}
        onBlur={() => !unread && setTyped(null)}
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
            setTyped(null)
            onChange(day)
            setOpen(false)
          }}
        />
      )}
      <Refusal id={`${id}-refusal`} text={unread ? t('typedIsNoDayWrite', { typed, example: say(today) }) : refusal} />
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
