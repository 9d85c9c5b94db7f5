import { useState } from 'react'
import { Link, useSearchParams } from 'react-router'
import type { Calendar, Submission } from '../types'
import { useUndo } from '../changes/Changes'
import { useCalendars } from '../calendars/queries'
import { useAttempt, useWrite } from '../useWrite'
import { useSignOff } from './queries'
import { useToast } from '../Toasts'
import { usePost } from '../usePost'
import { SubmissionCard } from './SubmissionCard'
import { t } from './words'

/** What waits for one's decision, and where that stands which one handed in oneself. */
export function SignOffPage() {
  const signOff = useSignOff()
  const calendars = useCalendars().data ?? []
  const [parameters, setParameters] = useSearchParams()
  const keeps = calendars.some((calendar) => calendar.mayEdit)
  const isMine = parameters.get('mine') !== null || (signOff.data !== undefined && !keeps)
  if (signOff.error)
    return (
      <main className="page">
        <p className="notice" role="alert">
          {signOff.error.message}
        </p>
      </main>
    )
  if (!signOff.data) return <p className="page">{t('opening')}</p>
  const { toDecide, yours } = signOff.data
  return (
    <main className="page sign-off">
      <div className="page-head">
        <h1>{t('signOff')}</h1>
        <span className="soft">{t('whatContributorsHandInWaits')}</span>
        <span className="stretch" />
        {keeps && yours.length > 0 && (
          <div className="joined" role="group" aria-label={t('which')}>
            <button type="button" aria-pressed={!isMine} onClick={() => setParameters({})}>
              {t('toDecideCount', { count: toDecide.length })}
            </button>
            <button type="button" aria-pressed={isMine} onClick={() => setParameters({ mine: '1' })}>
              {t('handedInByYou')}
            </button>
          </div>
        )}
      </div>
      {isMine ? <Yours submissions={yours} calendars={calendars} /> : <ToDecide submissions={toDecide} calendars={calendars} />}
    </main>
  )
}

interface ListProps {
  submissions: Submission[]
  calendars: Calendar[]
}

function ToDecide({ submissions, calendars }: ListProps) {
  const [chosen, setChosen] = useState<string[]>([])
  const { problem, isBusy, post } = usePost()
  const write = useWrite()
  const toast = useToast()
  const undo = useUndo()
  const possible = submissions.filter((one) => one.problem === null)
  const picked = possible.filter((one) => chosen.includes(one.id))
  const approve = (which: Submission[]) =>
    post(async () => {
      const outcomes = await write('POST', '/sign-off/approve', {
        items: which.map((one) => ({ id: one.id, version: one.version ?? 0 })),
      })
      setChosen([])
      for (const { title, problem: why } of outcomes.filter((one) => one.problem !== null))
        toast(t('titleIsNotApprovedWhy', { title, why }))
      const done = outcomes.filter((one) => one.problem === null)
      const acts = done.flatMap((one) => (one.actId ? [one.actId] : []))
      if (done.length === 1) toast(t('titleGoesOut', { title: done[0]?.title }), acts[0] ? () => undo(acts[0] ?? '') : undefined)
      else if (done.length > 1) toast(t('countGoOut', { count: done.length }))
    })
  if (submissions.length === 0) return <p className="empty">{t('nothingWaitsForYouWhen')}</p>
  return (
    <>
      <div className="sign-off-tools">
        <label className="tick">
          <input
            type="checkbox"
            checked={possible.length > 0 && picked.length === possible.length}
            disabled={possible.length === 0}
            onChange={(event) => setChosen(event.target.checked ? possible.map((one) => one.id) : [])}
          />
          {t('all')}
        </label>
        <button type="button" className="btn btn-spruce" disabled={picked.length === 0 || isBusy} onClick={() => approve(picked)}>
          {picked.length > 1 ? t('letCountGoOut', { count: picked.length }) : t('letTheChosenGoOut')}
        </button>
      </div>
      {problem && (
        <p className="notice" role="alert">
          {problem.message}
        </p>
      )}
      <ul className="submissions">
        {submissions.map((submission) => (
          <li key={submission.id}>
            {submission.problem === null && (
              <input
                type="checkbox"
                aria-label={t('chooseTitle', { title: submission.title })}
                checked={chosen.includes(submission.id)}
                onChange={(event) =>
                  setChosen(event.target.checked ? [...chosen, submission.id] : chosen.filter((id) => id !== submission.id))
                }
              />
            )}
            <SubmissionCard submission={submission} calendar={calendars.find((one) => one.id === submission.calendarId)}>
              <Decide submission={submission} isBusy={isBusy} onApprove={() => approve([submission])} />
            </SubmissionCard>
          </li>
        ))}
      </ul>
    </>
  )
}

interface DecideProps {
  submission: Submission
  isBusy: boolean
  onApprove: () => void
}

function Decide({ submission, isBusy, onApprove }: DecideProps) {
  const [isSendingBack, setSendingBack] = useState(false)
  const [reason, setReason] = useState('')
  const { problem, post } = usePost()
  const write = useWrite()
  const toast = useToast()
  const sendBack = () =>
    post(async () => {
      await write('POST', `/sign-off/${submission.id}/send-back`, { reason })
      toast(t('titleIsSentBackTo', { title: submission.title, proposer: submission.proposer }))
    })
  if (isSendingBack)
    return (
      <div className="send-back">
        <label htmlFor={`reason-${submission.id}`}>{t('whatShouldBeDifferent')}</label>
        <textarea
          id={`reason-${submission.id}`}
          className="form-control"
          rows={2}
          autoFocus
          value={reason}
          aria-invalid={problem?.on('reason') !== undefined}
          onChange={(event) => setReason(event.target.value)}
        />
        {problem && <p className="refusal">{problem.on('reason') ?? problem.message}</p>}
        <button type="button" className="btn btn-spruce" onClick={sendBack}>
          {t('sendItBack')}
        </button>{' '}
        <button type="button" className="btn btn-quiet" onClick={() => setSendingBack(false)}>
          {t('notYet')}
        </button>
      </div>
    )
  return (
    <div className="decide">
      {submission.problem === null && (
        <button type="button" className="btn btn-spruce" disabled={isBusy} onClick={onApprove}>
          {submission.kind === 'placement' ? t('showItThere') : t('letItGoOut')}
        </button>
      )}
      {submission.problem === null &&
        submission.kind !== 'placement' &&
        submission.act !== 'remove' &&
        submission.act !== 'cancel' && (
          <Link className="btn btn-outline-ink" to={editAddress(submission)}>
            {t('changeItFirst')}
          </Link>
        )}
      <button type="button" className="btn btn-quiet" onClick={() => setSendingBack(true)}>
        {t('sendItBackAsk')}
      </button>
    </div>
  )
}

function editAddress(submission: Submission): string {
  return submission.kind === 'change'
    ? `/events/${submission.eventId}?submission=${submission.id}`
    : `/events/${submission.eventId}`
}

function Yours({ submissions, calendars }: ListProps) {
  const write = useWrite()
  const attempt = useAttempt()
  const toast = useToast()
  const withdraw = (submission: Submission) =>
    attempt(async () => {
      await write('POST', `/sign-off/${submission.id}/withdraw`)
      toast(
        submission.kind === 'event'
          ? t('titleIsWithdrawnItIs', { title: submission.title })
          : t('whatYouHandedInAbout', { title: submission.title }),
      )
    })
  if (submissions.length === 0) return <p className="empty">{t('youHaveHandedInNothing')}</p>
  return (
    <ul className="submissions">
      {submissions.map((submission) => (
        <li key={submission.id}>
          <SubmissionCard submission={submission} calendar={calendars.find((one) => one.id === submission.calendarId)}>
            {submission.state === 'open' && (
              <button type="button" className="btn btn-quiet" onClick={() => withdraw(submission)}>
                {t('withdrawIt')}
              </button>
            )}
            {submission.state === 'sentBack' && submission.problem === null && submission.kind !== 'placement' && (
              <Link className="btn btn-outline-ink" to={editAddress(submission)}>
                {t('takeItUpAgain')}
              </Link>
            )}
          </SubmissionCard>
        </li>
      ))}
    </ul>
  )
}
