import { useState } from 'react'
import { Link, useNavigate, useParams } from 'react-router'
import { sayDay } from '../../shared/days'
import { useUndo } from '../changes/Changes'
import { NothingHere } from '../NothingHere'
import { useOrganisation } from '../session/queries'
import type { IncomingState, Intake, IntakeAnswers, IntakeFound } from '../types'
import { useAttempt, useWrite } from '../useWrite'
import { IntakeColumns } from './IntakeColumns'
import { IntakeLines } from './IntakeLines'
import { IntakeQuestions } from './IntakeQuestions'
import { isBusy, useIntake, useIntakeForeseen } from './queries'
import { t } from './words'

/** A file that was brought: what it is asked about, and what becomes of each of its events. */
export function IntakeFilePage() {
  const { id = '' } = useParams()
  const intake = useIntake(id)
  if (intake.error) return <NothingHere detail={intake.error.message} />
  if (!intake.data) return <p className="page">{t('opening')}</p>
  return <IntakeFile key={id} intake={intake.data} />
}

function IntakeFile({ intake }: { intake: Intake }) {
  const write = useWrite()
  const attempt = useAttempt()
  const navigate = useNavigate()
  const answer = (change: Partial<IntakeAnswers>) =>
    void attempt(() => write('PUT', `/intake/${intake.id}/answers`, { ...intake.answers, ...change }))
  const throwAway = () =>
    void attempt(async () => {
      await write('DELETE', `/intake/${intake.id}`)
      await navigate('/intake')
    })
  const isOver = intake.state === 'done' || intake.state === 'undone'
  return (
    <main className="page intake intake-file">
      <p className="soft">
        <Link to="/intake">{t('intake')}</Link>
      </p>
      <div className="page-head">
        <h1>{intake.name}</h1>
        <span className="soft">{useAbout(intake)}</span>
        <span className="stretch" />
        {!isOver && intake.state !== 'saving' && (
          <button type="button" className="btn btn-outline-ink" onClick={throwAway}>
            {isBusy(intake) ? t('stop') : t('throwAway')}
          </button>
        )}
        {intake.state === 'ready' && <TakeButton intake={intake} />}
      </div>
      {intake.problem !== '' && (
        <p className="notice" role="alert">
          {intake.problem}
        </p>
      )}
      {isBusy(intake) && <Progress intake={intake} />}
      {isOver ? <Over intake={intake} /> : <Halves intake={intake} answer={answer} />}
    </main>
  )
}

function useAbout({ form, found, counts }: Intake): string {
  const { locale } = useOrganisation()
  const count = counts.reduce((sum, one) => sum + one.all, 0)
  if (!found || count === 0) return t(`form_${form}`)
  const say = (day: string) => sayDay(day, locale, { day: 'numeric', month: 'short', year: 'numeric' })
  const span = found.first && found.last ? t('firstToLast', { first: say(found.first), last: say(found.last) }) : ''
  return [t(`form_${form}`), found.name, t('eventCount', { count }), span].filter((one) => one !== '').join(' · ')
}

function Progress({ intake }: { intake: Intake }) {
  const said = t(intake.state === 'saving' ? 'taking' : 'reading')
  return (
    <p className="intake-progress" role="status">
      <label htmlFor="intake-progress">{said}</label>
      <progress
        id="intake-progress"
        value={intake.state === 'reading' && intake.total > 0 ? intake.done : undefined}
        max={intake.total || undefined}
      />
    </p>
  )
}

/** What was read for other answers is not what is shown; which lines are ticked is asked for again with every tick. */
const turnOf = ({ answers, state, counts }: Intake) => JSON.stringify([answers, state, counts.map((one) => one.all)])

function TakeButton({ intake }: { intake: Intake }) {
  const write = useWrite()
  const attempt = useAttempt()
  const count = intake.counts.reduce((sum, one) => sum + one.taken, 0)
  return (
    <button
      type="button"
      className="btn btn-spruce"
      disabled={count === 0}
      onClick={() => void attempt(() => write('POST', `/intake/${intake.id}/save`))}
    >
      {t('takeEvents', { count })}
    </button>
  )
}

function Over({ intake }: { intake: Intake }) {
  const undo = useUndo()
  return (
    <p className="intake-over">
      {t(`state_${intake.state}`, { count: intake.taken })}{' '}
      {intake.state === 'done' && (
        <>
          <button type="button" className="btn btn-outline-ink" onClick={() => void undo(intake.actId ?? '')}>
            {t('takeBack')}
          </button>{' '}
          <Link to="/plan">{t('toThePlan')}</Link>
        </>
      )}
    </p>
  )
}

interface HalvesProps {
  intake: Intake
  answer: (change: Partial<IntakeAnswers>) => void
}

function Halves({ intake, answer }: HalvesProps) {
  const [state, setState] = useState<IncomingState | null>(null)
  const turn = turnOf(intake)
  const foreseen = useIntakeForeseen(intake.id, turn, intake.state === 'ready').data
  const found = intake.found as IntakeFound | null
  if (!found) return null
  return (
    <div className="intake-halves">
      <IntakeQuestions intake={intake} found={found} answer={answer} />
      <section className="intake-becomes" aria-labelledby="becomes" aria-busy={isBusy(intake)}>
        <h2 id="becomes">{t('asItCame')}</h2>
        {intake.form === 'table' && <IntakeColumns found={found} answer={answer} />}
        <IntakeLines intake={intake} state={state} turn={turn} onState={setState} />
        {foreseen && foreseen.whoSees.length > 0 && (
          <p className="intake-readers">
            {t('whoWillSeeThem')} {foreseen.whoSees.join(' · ')}
          </p>
        )}
      </section>
    </div>
  )
}
