import type { ReactNode } from 'react'
import { Link } from 'react-router'
import { Plate } from '../../shared/Plate'
import type { Calendar, Submission } from '../types'
import { Differences } from '../changes/Differences'
import { fieldName } from '../event/fields'
import { sayAgo } from '../Delivery'
import { Level } from '../Level'
import { audiences } from '../openness'
import { t } from './words'

interface SubmissionCardProps {
  submission: Submission
  /** Whose editors decide. */
  calendar: Calendar | undefined
  children?: ReactNode
}

/** One thing that was handed in: what it is, the change side by side, and what can be done. */
export function SubmissionCard({ submission, calendar, children }: SubmissionCardProps) {
  const { kind, title, state, problem, differences, whoSees } = submission
  return (
    <article className={`submission submission-${state}`} aria-label={title}>
      <header>
        {calendar && <Plate code={calendar.plate} colour={calendar.colour} />}
        <h2>
          <Link to={`/events/${submission.eventId}${submission.recurrenceId ? `?date=${submission.recurrenceId}` : ''}`}>
            {title}
          </Link>
        </h2>
        <span className="soft">{submission.when}</span>
      </header>
      <p className="submission-what">
        {sayWhat(submission, calendar)} <span className="soft">{sayAgo(submission.madeAt)}</span>
      </p>
      {state !== 'open' && (
        <p className={`submission-state is-${state}`}>
          {states[state]}
          {submission.decidedBy && ` ${t('byWhom', { name: submission.decidedBy })}`}
          {submission.decidedAt && <span className="soft"> {sayAgo(submission.decidedAt)}</span>}
          {submission.reason && <q>{submission.reason}</q>}
        </p>
      )}
      {problem && <p className="remark">{problem}</p>}
      {differences.length > 0 && kind === 'change' && (
        <div className="side-by-side">
          <p className="soft" aria-hidden="true">
            <span>{t('now')}</span>
            <span>{t('wouldBe')}</span>
          </p>
          <Differences differences={differences} />
        </div>
      )}
      {differences.length > 0 && kind !== 'change' && (
        <dl className="told">
          {differences
            .filter(({ field }) => field !== 'title')
            .map(({ field, is }) => (
              <div key={field}>
                <dt>{field === 'placements' ? t('askedFor') : fieldName(field)}</dt>
                <dd>{is}</dd>
              </div>
            ))}
        </dl>
      )}
      {whoSees.length > 0 && state === 'open' && (
        <dl className="who">
          {whoSees.map(({ audience, detail, sentence }) => (
            <div key={audience}>
              <dt>{audiences.find((one) => one.key === audience)?.name}</dt>
              <dd>
                <Level detail={detail} word={sentence} />
              </dd>
            </div>
          ))}
        </dl>
      )}
      {children}
    </article>
  )
}

const states: Record<Submission['state'], string> = {
  open: t('waits'),
  approved: t('goneOutApproved'),
  sentBack: t('sentBack'),
  withdrawn: t('withdrawn'),
}

const scopes = { this: t('thisDate'), later: t('thisDateAndLaterOnes'), every: t('everyDate') }

function sayWhat(submission: Submission, calendar: Calendar | undefined): string {
  const who = submission.isYours ? 'you' : 'who'
  const values = { who: submission.proposer, where: calendar?.name ?? t('aCalendar') }
  if (submission.kind !== 'change') return t(`${who}_${submission.kind}`, values)
  const scope = submission.scope ? scopes[submission.scope] : t('it')
  return t(`${who}_${submission.act ?? 'edit'}`, { ...values, scope })
}
