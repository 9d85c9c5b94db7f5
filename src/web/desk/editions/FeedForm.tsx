import { ReminderField, usualReminder } from '../event/ReminderField'
import type { Problem } from '../Problem'
import type { Edition } from '../types'
import type { Draft } from './draft'
import { Choice } from './Step'
import { listed } from '../catalogue'
import { t } from './words'

const USUAL_REFRESH = 60
const USUAL_KEPT = 60

const refreshes: Record<string, string> = {
  15: t('quarterHour'),
  30: t('halfAnHour'),
  60: t('anHour'),
  240: t('fourHours'),
  1440: t('aDay'),
}

const keeps: Record<string, string> = {
  0: t('noTime'),
  10: t('tenSeconds'),
  60: t('aMinute'),
  300: t('fiveMinutes'),
  3600: t('anHourLong'),
}

/** With what another program has chosen. */
const withOwn = (options: Record<string, string>, own: number | null | undefined, unit: string): Record<string, string> =>
  own === null || own === undefined || String(own) in options ? options : { ...options, [own]: `${own}${unit}` }

interface FeedFormProps {
  draft: Draft
  saved: Edition | undefined
  problem: Problem | null
  onChange: (part: Partial<Draft>) => void
}

/** How the feed is made, and what whoever subscribes will have of it. */
export function FeedForm({ draft, saved, problem, onChange }: FeedFormProps) {
  const willRename = saved && (saved.edition.feed ?? 'series') !== (draft.feed ?? 'series')
  return (
    <section aria-labelledby="feed-form">
      <h3 id="feed-form">{t('forThoseWhoSubscribe')}</h3>
      <p className="sentence">
        {t('programsGet')}{' '}
        <Choice
          label={t('howTheFeedIsMade')}
          value={draft.feed ?? 'series'}
          options={{ series: t('seriesWithTheirRules'), dates: t('eachDateByItself') }}
          onChange={(feed) => onChange({ feed })}
        />
      </p>
      <p className="soft">{draft.feed === 'dates' ? wordsOfDates(draft) : wordsOfSeries(draft)}</p>
      {draft.kinds !== 'events' && (
        <>
          <p className="sentence">
            {t('deadlinesCome')}{' '}
            <Choice
              label={t('asWhatDeadlinesCome')}
              value={draft.deadlines ?? 'events'}
              options={{ events: t('asEventsCalledDue'), tasks: t('asTasks') }}
              onChange={(deadlines) => onChange({ deadlines })}
            />
          </p>
          <p className="soft">{draft.deadlines === 'tasks' ? t('whatProgramsDoWithTasks') : t('whatProgramsDoWithDue')}</p>
        </>
      )}
      <p className="sentence">
        {t('programsRemind')}{' '}
        <Choice
          label={t('ofWhatProgramsRemind')}
          value={draft.reminding ?? 'nothing'}
          options={{ nothing: t('ofNothing'), asEventsSay: t('asEventsSay'), everything: t('ofEverything') }}
          onChange={(reminding) =>
            onChange({ reminding, reminder: reminding === 'everything' ? (draft.reminder ?? usualReminder) : draft.reminder })
          }
        />{' '}
        {draft.reminding === 'everything' && (
          <ReminderField
            id="edition-reminder"
            value={draft.reminder ?? usualReminder}
            refusal={problem?.on('reminder')}
            onChange={(reminder) => onChange({ reminder })}
          />
        )}
      </p>
      {draft.reminding !== undefined && draft.reminding !== 'nothing' && (
        <p className="soft">{t('someProgramsTakeNoReminders')}</p>
      )}
      <p className="sentence">
        {t('programsAreAskedToCome')}{' '}
        <Choice
          label={t('howOftenToCome')}
          value={String(draft.refreshMinutes ?? USUAL_REFRESH)}
          options={withOwn(refreshes, draft.refreshMinutes, ' min')}
          onChange={(minutes) => onChange({ refreshMinutes: Number(minutes) })}
        />
        {t('cachesMayKeep')}{' '}
        <Choice
          label={t('howLongKept')}
          value={String(draft.keptSeconds ?? USUAL_KEPT)}
          options={withOwn(keeps, draft.keptSeconds, ' s')}
          onChange={(seconds) => onChange({ keptSeconds: Number(seconds) })}
        />
      </p>
      <p className="soft">{t('aboutFreshness')}</p>
      {willRename && (
        <p className="remark" role="status">
          {t('withThisChangeEveryEntry')}
        </p>
      )}
    </section>
  )
}

function wordsOfSeries(draft: Draft): string {
  if (draft.cap === 'times') return t('busyTimesComeDateBy')
  const more = [
    draft.limit && t('moreThanTheFirst', { count: draft.limit }),
    draft.window.withPast === false && t('whatIsOverToo'),
    !isOpen(draft) && t('datesOfASeriesBeyond'),
  ].filter((one) => typeof one === 'string')
  return [t('aSeriesIsOneEvent'), more.length > 0 ? t('soTheyHave', { more: listed(more) }) : ''].join(' ').trim()
}

function wordsOfDates(draft: Draft): string {
  const exactly = [
    draft.limit && t('theFirstEntries', { count: draft.limit }),
    draft.window.withPast === false && t('noneThatIsOver'),
    draft.mergesLookAlikes && t('lookAlikesAsOne'),
  ].filter((one) => typeof one === 'string')
  return [
    exactly.length > 0 ? t('theyHaveExactlyThese', { exactly: listed(exactly) }) : t('theyHaveExactlyTheEntries'),
    t('eachDateIsAnEvent'),
    draft.window.to === 'open' || !draft.window.to ? t('withoutAnEndTheySee') : '',
  ]
    .join(' ')
    .trim()
}

const isOpen = (draft: Draft) => (draft.window.from ?? 'beginning') === 'beginning' && (draft.window.to ?? 'open') === 'open'
