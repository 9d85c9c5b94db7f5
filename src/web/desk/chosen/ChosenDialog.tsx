import { useState, type FormEvent } from 'react'
import Modal from 'react-bootstrap/Modal'
import { useCalendars } from '../calendars/queries'
import { useUndo } from '../changes/Changes'
import { WhatWasRefused } from '../Field'
import { newKey } from '../api'
import { Problem } from '../Problem'
import { useToast } from '../Toasts'
import type { ChosenAct, ChosenDate, ChosenRequest } from '../types'
import { usePost } from '../usePost'
import { useSettled } from '../useSettled'
import { useWrite } from '../useWrite'
import { ActFields, isSaid, startOf, type Said } from './ActFields'
import { ChosenConsequences } from './ChosenConsequences'
import { useChosenPreview } from './queries'
import { t } from './words'

export type ActName =
  | 'move'
  | 'calendar'
  | 'alsoOn'
  | 'category'
  | 'tags'
  | 'place'
  | 'out'
  | 'cancel'
  | 'remove'
  | 'copy'
  | 'endWithPlan'
  | 'skipBreaks'

interface ChosenDialogProps {
  act: ActName
  dates: ChosenDate[]
  onDone: () => void
  onLeave: () => void
}

/** What is to be done to all that is chosen, with what follows from it, before one save. */
export function ChosenDialog({ act, dates, onDone, onLeave }: ChosenDialogProps) {
  const [said, setSaid] = useState<Said>(() => startOf(act))
  const [scope, setScope] = useState<'dates' | 'series'>('dates')
  const settled = JSON.parse(useSettled(JSON.stringify(said), 250)) as Said
  const request: ChosenRequest = { dates, scope, change: asked(said), seen: null }
  const preview = useChosenPreview(isSaid(settled) ? { ...request, change: asked(settled) } : null)
  const shown = isSaid(said) ? preview.data : undefined
  const isLate = JSON.stringify(said) !== JSON.stringify(settled) || preview.isFetching
  const { problem, isBusy, post } = usePost()
  const [once] = useState(newKey)
  const write = useWrite()
  const toast = useToast()
  const undo = useUndo()
  const calendars = useCalendars().data ?? []
  const save = (event: FormEvent) => {
    event.preventDefault()
    if (!shown || isLate || shown.foreseen.events === 0) return
    void post(async () => {
      const done = await write('POST', '/events/chosen', { ...request, seen: shown.seen }, { once })
      toast(t(`done_${said.act}`, { count: done.events }), () => undo(done.actId))
      onDone()
    })
  }
  const isBrick = said.act === 'cancel' || said.act === 'remove'
  return (
    <Modal show onHide={onLeave} size="lg" aria-labelledby="chosen-title">
      <Modal.Body className="chosen-dialog">
        <h2 id="chosen-title">{t(`title_${act}`, { count: dates.length })}</h2>
        <form onSubmit={save} noValidate>
          <ActFields act={act} said={said} calendars={calendars} onChange={setSaid} />
          {shown?.hasSeries && isOfDates(said.act) && <ScopeChoice scope={scope} onChange={setScope} />}
          <WhatWasRefused problem={problem ?? (isSaid(said) ? asProblem(preview.error) : null)} fields={[]} />
          {shown && <ChosenConsequences preview={shown} act={said.act} calendars={calendars} isLate={isLate} />}
          <p className="popup-acts">
            <button
              type="submit"
              className={`btn ${isBrick ? 'btn-brick' : 'btn-spruce'}`}
              disabled={!shown || isLate || isBusy || shown.foreseen.events === 0}
            >
              {isBusy ? t('saving') : shown ? t(`do_${said.act}`, { count: shown.foreseen.events }) : t(`act_${act}`)}
            </button>{' '}
            <button type="button" className="btn btn-quiet" onClick={onLeave}>
              {t('leaveThemAsTheyAre')}
            </button>
          </p>
        </form>
      </Modal.Body>
    </Modal>
  )
}

const asProblem = (error: unknown) => (error instanceof Problem ? error : null)

/** Where one date can be meant, or all of its series. */
const isOfDates = (act: ChosenAct) =>
  act === 'move' || act === 'place' || act === 'cancel' || act === 'restore' || act === 'remove'

function asked(said: Said): ChosenRequest['change'] {
  const { act, unit, count, direction, calendarId, categoryId, text, term } = said
  const none = { days: null, calendarId: null, categoryId: null, tag: null, place: null, yearPlanId: null, term: null }
  switch (act) {
    case 'move':
      return { ...none, act, days: Number(count) * (unit === 'weeks' ? 7 : 1) * (direction === 'later' ? 1 : -1) }
    case 'calendar':
    case 'placeOn':
    case 'takeOff':
      return { ...none, act, calendarId }
    case 'category':
      return { ...none, act, categoryId: categoryId || null }
    case 'addTag':
    case 'takeTag':
      return { ...none, act, tag: text }
    case 'place':
      return { ...none, act, place: text }
    case 'copy':
      return { ...none, act, yearPlanId: term.split(' ')[0] ?? null, term: term.slice(term.indexOf(' ') + 1) }
    default:
      return { ...none, act }
  }
}

function ScopeChoice({ scope, onChange }: { scope: 'dates' | 'series'; onChange: (scope: 'dates' | 'series') => void }) {
  return (
    <div className="scopes" role="radiogroup" aria-label={t('whichDates')}>
      {(['dates', 'series'] as const).map((one) => (
        <label key={one} className={`scope ${one === scope ? 'is-chosen' : ''}`}>
          <input type="radio" name="chosen-scope" checked={one === scope} onChange={() => onChange(one)} />
          <span>
            <b>{t(`scope_${one}`)}</b> <span className="soft">{t(`scopeAbout_${one}`)}</span>
          </span>
        </label>
      ))}
    </div>
  )
}
