import type { ReactNode } from 'react'
import { addDays, weekOf, type Day } from '../shared/days'
import { ActLink } from './ActLink'
import type { View } from './edition'
import { GoTo } from './GoTo'
import { NeedsScript } from './NeedsScript'
import { usePage } from './page'
import { Said } from './Said'
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
  const step = (to: Day, isOver: boolean, name: string, arrow: string) => (
    <ActLink className="tool" href={reading.linkTo({ date: to })} isOff={isOver} aria-label={name} onPress={() => go(to)}>
      <span className="arrow">{arrow}</span>
    </ActLink>
  )
  const isPast = edition.from !== null && span.from <= edition.from
  const isEnd = edition.to !== null && span.to >= edition.to
  const period = periodOf(view, day, edition, speech)
  return (
    <div className="edition-tools">
      {period && (
        <h2 aria-live="polite">
          <Said>{period}</Said>
        </h2>
      )}
      {edition.look.navigation && !edition.isWhole && (
        <>
          <div className="joined" role="group" aria-label={words.otherDates}>
            {step(span.before, isPast, words.before, '‹')}
            <ActLink className="tool" href={reading.linkTo({ date: reading.today })} onPress={() => go(reading.today)}>
              {words.today}
            </ActLink>
            {step(span.after, isEnd, words.after, '›')}
          </div>
          <NeedsScript>
            <GoTo day={day} onGo={go} />
          </NeedsScript>
        </>
      )}
      <span className="stretch" />
      {edition.look.views.length > 1 && (
        <div className="joined" role="group" aria-label={words.view}>
          {edition.look.views.map((one) => (
            <ActLink
              key={one}
              className="tool"
              href={reading.linkTo({ view: one })}
              pressed={view === one}
              onPress={() => {
                reading.show(one)
                onOpen(null)
              }}
            >
              {words[one]}
            </ActLink>
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
