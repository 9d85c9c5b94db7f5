import type { ReactNode } from 'react'
import { Link } from 'react-router'
import { Plate } from '../../shared/Plate'
import type { Calendar, Submission } from '../api'
import { Differences } from '../changes/Differences'
import { fieldName } from '../event/fields'
import { sayAgo } from '../Delivery'
import { Level } from '../Level'
import { audiences } from '../openness'

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
          {submission.decidedBy && ` by ${submission.decidedBy}`}
          {submission.decidedAt && <span className="soft"> {sayAgo(submission.decidedAt)}</span>}
          {submission.reason && <q>{submission.reason}</q>}
        </p>
      )}
      {problem && <p className="remark">{problem}</p>}
      {differences.length > 0 && kind === 'change' && (
        <div className="side-by-side">
          <p className="soft" aria-hidden="true">
            <span>now</span>
            <span>would be</span>
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
                <dt>{field === 'placements' ? 'Asked for' : fieldName(field)}</dt>
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
  open: 'Waits',
  approved: 'Gone out, approved',
  sentBack: 'Sent back',
  withdrawn: 'Withdrawn',
}

const acts = { edit: 'change', cancel: 'cancel', remove: 'remove', restore: 'restore' }
const scopes = { this: 'this date', later: 'this date and later ones', every: 'every date' }

function sayWhat(submission: Submission, calendar: Calendar | undefined): string {
  const who = submission.isYours ? 'You' : submission.proposer
  const where = calendar?.name ?? 'a calendar'
  if (submission.kind === 'event') return `${who} made this event on ${where}.`
  if (submission.kind === 'placement') return `${who} ${submission.isYours ? 'ask' : 'asks'} to show it on ${where}.`
  const act = submission.act ? acts[submission.act] : 'change'
  const scope = submission.scope ? ` ${scopes[submission.scope]}` : ''
  return `${who} ${submission.isYours ? 'want' : 'wants'} to ${act}${scope || ' it'} on ${where}.`
}
