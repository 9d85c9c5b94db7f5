import { Plate } from '../../shared/Plate'
import type { Impact } from '../api'
import { useCalendars } from '../queries'

interface ImpactPanelProps {
  impact: Impact | undefined
  /** False while nothing was changed yet. */
  isAsked: boolean
}

/** Which series change with the year plan, and which of their dates, before it is saved. */
export function ImpactPanel({ impact, isAsked }: ImpactPanelProps) {
  const calendars = useCalendars().data ?? []
  return (
    <aside className="follows" aria-label="What follows from this">
      <h2>What follows from this</h2>
      <div aria-live="polite">
        {!isAsked && (
          <p className="soft">
            Change a term, a break or the cycle, and see here which series and how many dates change, before you save.
          </p>
        )}
        {isAsked && impact && impact.dates === 0 && <p className="summary">No date changes.</p>}
        {isAsked && impact && impact.dates > 0 && (
          <p className="summary">
            <b>
              {impact.dates === 1 ? '1 date' : `${impact.dates} dates`} of{' '}
              {impact.series === 1 ? '1 series' : `${impact.series} series`} change.
            </b>
            <br />
            Pages, embeds and feeds follow when you save.
          </p>
        )}
      </div>
      {isAsked &&
        impact?.events.map((one) => {
          const calendar = calendars.find((calendar) => calendar.id === one.calendarId)
          return (
            <section key={one.eventId} className="impact">
              <h3>
                {calendar && <Plate code={calendar.plate} colour={calendar.colour} size="small" />} {one.title}
              </h3>
              {one.words.map((line) => (
                <p key={line}>{line}</p>
              ))}
              {one.lostExceptions.length > 0 && (
                <p className="remark">These had something of their own, which goes with them: {one.lostExceptions.join(', ')}.</p>
              )}
            </section>
          )
        })}
    </aside>
  )
}
