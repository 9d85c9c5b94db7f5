import type { ReactNode } from 'react'
import { addDays, weekOf } from '../shared/days'
import type { View } from './edition'
import { usePage } from './page'
import type { useReading } from './useReading'

interface ToolsProps {
  reading: ReturnType<typeof useReading>
  onOpen: (spot: string | null) => void
  children: ReactNode
}

/** What is shown, the way to other days, and the views that the edition offers. */
export function Tools({ reading, onOpen, children }: ToolsProps) {
  const { edition, speech } = usePage()
  const { words } = speech
  const { view, day, span } = reading
  const go = (to: string) => {
    reading.goTo(to)
    onOpen(null)
  }
  const isPast = edition.from !== null && span.from <= edition.from
  const isEnd = edition.to !== null && span.to >= edition.to
  const period = periodOf(view, day, edition, speech)
  return (
    <div className="edition-tools">
      {period && <h2 aria-live="polite">{period}</h2>}
      {edition.look.navigation && !edition.isWhole && (
        <>
          <div className="joined" role="group" aria-label={words.otherDates}>
            <button type="button" disabled={isPast} onClick={() => go(span.before)} aria-label={words.before}>
              <span className="arrow">‹</span>
            </button>
            <button type="button" onClick={() => go(reading.today)}>
              {words.today}
            </button>
            <button type="button" disabled={isEnd} onClick={() => go(span.after)} aria-label={words.after}>
              <span className="arrow">›</span>
            </button>
          </div>
          <input
            type="date"
            className="go-to"
            aria-label={words.goTo}
            value={day}
            min={edition.from ?? undefined}
            max={edition.to ? addDays(edition.to, -1) : undefined}
            onChange={(event) => event.target.value && go(event.target.value)}
          />
        </>
      )}
      <span className="stretch" />
      {edition.look.views.length > 1 && (
        <div className="joined" role="group" aria-label={words.view}>
          {edition.look.views.map((one) => (
            <button key={one} type="button" aria-pressed={view === one} onClick={() => (reading.show(one), onOpen(null))}>
              {words[one]}
            </button>
          ))}
        </div>
      )}
      {children}
    </div>
  )
}

function periodOf(
  view: View,
  day: string,
  edition: ReturnType<typeof usePage>['edition'],
  speech: ReturnType<typeof usePage>['speech'],
): string {
  if (view === 'day') return speech.longDay(day)
  if (view === 'week') {
    const first = weekOf(day, edition.firstDayOfWeek)
    return speech.stretch(first, addDays(first, 6))
  }
  return edition.isWhole ? '' : speech.format(day, { month: 'long', year: 'numeric' })
}
