import { useState, type FormEvent } from 'react'
import { Link, useNavigate, useSearchParams } from 'react-router'
import { newKey } from '../api'
import { useUndo } from '../changes/Changes'
import { planOn, rememberSavedOn } from '../lastPlan'
import { useLine } from '../several/queries'
import type { Calendar, LineReading } from '../types'
import { usePost } from '../usePost'
import { useSettled } from '../useSettled'
import { useToast } from '../Toasts'
import { useWrite } from '../useWrite'
import { CalendarChoice } from './CalendarChoice'
import { whoSees } from './useEventActs'
import { t } from './words'

type Question = LineReading['questions'][number]
type Understood = LineReading['understood'][number]

/** The rows, in their order, and what the form calls what stands in each. */
const rows: [string, string, string[]][] = [
  ['title', t('title'), ['title']],
  ['date', t('day'), ['date']],
  ['from', t('time'), ['from', 'to', 'allDay']],
  ['repeat', t('pattern'), ['repeat']],
  ['until', t('ends'), ['until', 'count']],
  ['place', t('where'), ['place']],
  ['tags', t('tag'), ['tags']],
  ['calendarId', t('calendar'), []],
  ['unread', t('notRead'), ['unread']],
]

/** An event said in one line: what each word was taken for, what is left to ask, and the way to save it. Nothing is guessed in silence. */
export function LinePage({ calendars }: { calendars: Calendar[] }) {
  const [parameters, setParameters] = useSearchParams()
  const [text, setText] = useState(parameters.get('line') ?? '')
  const [picked, setPicked] = useState(parameters.get('calendar'))
  const settled = useSettled(text)
  const reading = useLine(settled)
  const line = reading.data
  const isCurrent = settled === text && !reading.isPlaceholderData
  const mine = calendars.filter((calendar) => calendar.mayContribute)
  const calendar = mine.find((one) => one.id === (line?.calendarId ?? picked)) ?? (mine.length === 1 ? mine[0] : undefined)
  const isReady = isCurrent && line !== undefined && line.questions.length === 0 && calendar !== undefined && text.trim() !== ''
  const { save, problem, isBusy } = useSavingLine(line, calendar)

  const submit = (event: FormEvent) => {
    event.preventDefault()
    if (isReady) void save()
  }
  const openForm = () => {
    const form = new URLSearchParams({ line: text, form: '1', calendar: calendar?.id ?? '' })
    setParameters(form)
  }
  return (
    <main className="page line-page">
      <p className="soft">{t.rich('planOneLine', {}, <Link to={planOn(null)} />)}</p>
      <h1>{t('oneLineOneEvent')}</h1>
      <form onSubmit={submit} noValidate>
        <div className="line-box">
          <input
            className="line-input"
            aria-label={t('theLine')}
            autoFocus
            autoComplete="off"
            maxLength={500}
            value={text}
            onChange={(event) => setText(event.target.value)}
          />
          {line && text.trim() !== '' && <Pieces pieces={line.pieces} />}
        </div>
        {text.trim() === '' ? (
          <p className="soft">{t('nothingSaidYet')}</p>
        ) : (
          line && (
            <dl className="line-rows" aria-busy={!isCurrent}>
              {rows.map(([field, name, fields]) => (
                <Row
                  key={field}
                  name={name}
                  said={line.understood.filter((one) => fields.includes(one.field))}
                  questions={line.questions.filter((one) => one.field === field)}
                  onChoose={setText}
                >
                  {field === 'calendarId' && (
                    <CalendarChoice
                      calendars={mine}
                      value={calendar?.id ?? ''}
                      isFixed={line.calendarId !== null}
                      onChange={setPicked}
                    />
                  )}
                </Row>
              ))}
            </dl>
          )
        )}
        {(problem ?? reading.error) && (
          <p className="notice" role="alert">
            {(problem ?? reading.error)?.message}
          </p>
        )}
        <p className="event-acts">
          <button type="submit" className="btn btn-spruce" disabled={!isReady || isBusy}>
            {t('save')}
          </button>{' '}
          <button type="button" className="btn btn-outline-ink" disabled={!isReady || line.events.length > 1} onClick={openForm}>
            {t('openTheWholeForm')}
          </button>{' '}
          <span className="soft" role="status">
            {line && line.questions.length > 0
              ? t('savedOnlyWhenNothing')
              : !calendar && text.trim() !== ''
                ? t('chooseACalendar')
                : ''}
          </span>
        </p>
      </form>
    </main>
  )
}

/** The line with what each word was taken for. */
function Pieces({ pieces }: { pieces: LineReading['pieces'] }) {
  return (
    <p className="line-pieces">
      <span className="visually-hidden">{t('asItIsRead')}: </span>
      {pieces.map((piece, index) => (
        <span key={index}>
          <span className={pieceClass(piece)}>{piece.text}</span>{' '}
        </span>
      ))}
    </p>
  )
}

function pieceClass({ field, isAsked }: LineReading['pieces'][number]): string | undefined {
  if (field === 'unread') return 'is-unread'
  if (isAsked) return 'is-asked'
  return field === '' ? undefined : 'is-read'
}

interface RowProps {
  name: string
  said: Understood[]
  questions: Question[]
  onChoose: (line: string) => void
  children?: React.ReactNode
}

function Row({ name, said, questions, onChoose, children }: RowProps) {
  if (said.length === 0 && questions.length === 0 && !children) return null
  return (
    <div className={questions.length > 0 ? 'is-asked' : undefined}>
      <dt>{name}</dt>
      <dd>
        {said.map((one, index) => (
          <span key={index} className="line-said">
            <span className={one.words === '' ? 'soft' : 'line-means'}>{one.means}</span>{' '}
          </span>
        ))}
        {children}
        {questions.map((question, index) => (
          <span key={index} className="line-question">
            {question.words !== '' && (
              <>
                <q>{question.words}</q>:{' '}
              </>
            )}
            {question.why}{' '}
            {question.choices.map((choice) => (
              <button key={choice.line} type="button" className="btn btn-outline-ink" onClick={() => onChoose(choice.line)}>
                {choice.words}
              </button>
            ))}
          </span>
        ))}
      </dd>
    </div>
  )
}

function useSavingLine(line: LineReading | undefined, calendar: Calendar | undefined) {
  const { problem, isBusy, post } = usePost()
  const [once] = useState(newKey)
  const write = useWrite()
  const toast = useToast()
  const undo = useUndo()
  const navigate = useNavigate()
  const save = () =>
    post(async () => {
      if (!line || !calendar) return
      const events = line.events.map((one) => ({ ...one, calendarId: calendar.id }))
      const done = await write('POST', '/events/together', { events }, { once })
      const values = { title: events[0]?.title ?? '', name: calendar.name }
      const said = done.waits
        ? t('eventsAreHandedIn', values)
        : `${t('eventsAreSavedOn', { ...values, count: done.events })} ${whoSees(calendar)}`
      toast(said.trim(), () => undo(done.actId))
      if (calendar) rememberSavedOn(calendar.id)
      await navigate(planOn(events[0]?.date))
    })
  return { problem, isBusy, save }
}
