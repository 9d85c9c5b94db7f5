import { useEffect, useRef, useState } from 'react'
import { addDays, addMonths, isWeekend, monthOf, weeksOf, type Day } from '../shared/days'
import { sayNumber } from '../shared/formats'
import { useArrowKeys } from '../shared/useArrowKeys'
import { usePage } from './page'
import { Said } from './Said'

/** Opens a small month to go to a day of, written as the edition writes dates; days that are not the edition's cannot be gone to. */
export function GoTo({ day, onGo }: { day: Day; onGo: (day: Day) => void }) {
  const { speech } = usePage()
  const [isOpen, setOpen] = useState(false)
  const said = speech.format(day, { day: 'numeric', month: 'short', year: 'numeric' })
  const opener = useRef<HTMLButtonElement>(null)
  const close = () => {
    setOpen(false)
    opener.current?.focus()
  }
  return (
    <>
      <button
        ref={opener}
        type="button"
        className="plain go-to"
        aria-expanded={isOpen}
        aria-label={`${speech.words.goTo}: ${said}`}
        suppressHydrationWarning
        onClick={() => setOpen(!isOpen)}
      >
        <Said>{said}</Said>
      </button>
      {isOpen && (
        <Days
          day={day}
          onLeave={close}
          onGo={(to) => {
            close()
            onGo(to)
          }}
        />
      )}
    </>
  )
}

function Days({ day, onGo, onLeave }: { day: Day; onGo: (day: Day) => void; onLeave: () => void }) {
  const { edition, speech, today } = usePage()
  const { words } = speech
  const [month, setMonth] = useState(monthOf(day))
  const arrows = useArrowKeys()
  const chosen = useRef<HTMLButtonElement>(null)
  useEffect(() => chosen.current?.focus(), [])
  const isPossible = (one: Day) => (!edition.from || one >= edition.from) && (!edition.to || one < edition.to)
  const leads = (months: number) => {
    const to = addMonths(month, months)
    return (!edition.from || addDays(`${addMonths(to, 1)}-01`, -1) >= edition.from) && (!edition.to || `${to}-01` < edition.to)
  }
  const step = (months: number, name: string, arrow: string) => (
    <button
      type="button"
      className="plain"
      aria-label={name}
      aria-disabled={!leads(months)}
      onClick={() => leads(months) && setMonth(addMonths(month, months))}
    >
      <span className="arrow">{arrow}</span>
    </button>
  )
  const weeks = weeksOf(month, edition.firstDayOfWeek)
  return (
    <div
      className="go-to-days"
      role="group"
      aria-label={words.goTo}
      onKeyDown={(event) => {
        if (event.key === 'Escape') onLeave()
        const months = { PageUp: -1, PageDown: 1 }[event.key]
        if (!months) return
        event.preventDefault()
        if (leads(months)) setMonth(addMonths(month, months))
      }}
    >
      <div className="go-to-box">
        <div className="go-to-month">
          {step(-1, words.before, '‹')}
          <strong aria-live="polite">{speech.format(`${month}-01`, { month: 'long', year: 'numeric' })}</strong>
          {step(1, words.after, '›')}
        </div>
        <table ref={arrows}>
          <thead>
            <tr>
              {weeks[0]?.map((one) => (
                <th key={one} scope="col" abbr={speech.format(one, { weekday: 'long' })}>
                  {speech.format(one, { weekday: 'narrow' })}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {weeks.map((week) => (
              <tr key={week[0]}>
                {week.map((one) => (
                  <td key={one} className={isWeekend(one) ? 'is-weekend' : undefined}>
                    <button
                      ref={one === day ? chosen : undefined}
                      type="button"
                      data-cell
                      className={monthOf(one) === month ? undefined : 'is-outside'}
                      aria-label={speech.longDay(one)}
                      aria-pressed={one === day}
                      aria-current={one === today ? 'date' : undefined}
                      aria-disabled={!isPossible(one)}
                      onClick={() => isPossible(one) && onGo(one)}
                    >
                      {sayNumber(Number(one.slice(8)), speech.locale)}
                    </button>
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </div>
  )
}
