import { useState } from 'react'
import { Plate } from '../../shared/Plate'
import { CalendarFinder } from '../calendars/CalendarFinder'
import { latelySavedOn } from '../lastPlan'
import type { Calendar } from '../types'
import { Levels } from '../Level'
import { sayOpenness } from '../openness'
import { t } from './words'

interface CalendarChoiceProps {
  calendars: Calendar[]
  value: string
  /** It is said elsewhere which one it is. */
  isFixed?: boolean
  onChange: (id: string) => void
}

/** The calendar is always in sight, with its plate, colour and how open it is. */
export function CalendarChoice({ calendars, value, isFixed = false, onChange }: CalendarChoiceProps) {
  // Where none is chosen yet, the likely ones are at hand.
  const [lately] = useState(() => (value === '' ? latelySavedOn() : []))
  return (
    <div className="calendar-choice" role="radiogroup" aria-label={t('homeCalendar')}>
      <CalendarFinder
        calendars={calendars.filter((calendar) => (calendar.mayContribute && !isFixed) || calendar.id === value)}
        chosen={[...lately, value]}
      >
        {(calendar) => (
          <label className={calendar.id === value ? 'is-chosen' : undefined}>
            <input
              type="radio"
              name="calendar"
              className="visually-hidden"
              checked={calendar.id === value}
              onChange={() => onChange(calendar.id)}
            />
            <Plate code={calendar.plate} colour={calendar.colour} />
            <span>{calendar.name}</span>
            {calendar.id !== value && <Levels disclosure={calendar.disclosure} />}
            {calendar.id === value && (
              <span className="soft">
                {t('home')} <Levels disclosure={calendar.disclosure} /> {sayOpenness(calendar)}
                {!calendar.mayEdit && ` · ${t('waitsForSignOff')}`}
              </span>
            )}
          </label>
        )}
      </CalendarFinder>
    </div>
  )
}
