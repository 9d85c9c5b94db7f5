import { Plate } from '../../shared/Plate'
import type { Impact } from '../types'
import { useCalendars } from '../calendars/queries'
import { YearProof, type LookAt } from './YearProof'
import { t } from './words'

interface ImpactPanelProps {
  impact: Impact | undefined
  /** False while nothing was changed yet. */
  isAsked: boolean
  /** What is asked about: another is looked through anew. */
  asked: string
  lookAt: LookAt
}

/** Which series change with the year plan, and which of their dates, before it is saved or removed. */
export function ImpactPanel({ impact, isAsked, asked, lookAt }: ImpactPanelProps) {
  const calendars = useCalendars().data ?? []
  return (
    <aside className="follows" aria-label={t('whatFollowsFromThis')}>
      <h2>{t('whatFollowsFromThis')}</h2>
      <div aria-live="polite">
        {!isAsked && <p className="soft">{t('changeATermABreak')}</p>}
        {isAsked && impact && impact.dates === 0 && <p className="summary">{t('noDateChanges')}</p>}
        {isAsked && impact && impact.dates > 0 && (
          <p className="summary">
            <b>{t('datesChange', { count: impact.dates, series: t('ofSeries', { count: impact.series }) })}</b>
            <br />
            {t('pagesEmbedsAndFeedsFollow')}
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
                <p className="remark">{t('theseHadSomethingOfTheir', { lost: one.lostExceptions.join(', ') })}</p>
              )}
            </section>
          )
        })}
      {isAsked && impact && <YearProof key={asked} lookAt={lookAt} editions={impact.editions} />}
    </aside>
  )
}
