import { Link } from 'react-router'
import { planOn } from '../lastPlan'
import type { Day } from '../../shared/days'
import type { Calendar, CalendarEvent } from '../types'
import { t } from './words'

interface SaveActsProps {
  stored: CalendarEvent | null
  /** The home that is chosen. */
  calendar: Calendar | undefined
  /** Saving approves what was handed in. */
  isApproval: boolean
  isSaving: boolean
  day: Day | null
  onSave: (isDraft: boolean) => void
  onAct: (act: 'cancel' | 'remove') => void
}

/** What can be done with the form: each button says what happens. */
export function SaveActs({ stored, calendar, isApproval, isSaving, day, onSave, onAct }: SaveActsProps) {
  const isOut = stored?.state === 'live' || stored?.state === 'cancelled'
  // Where no calendar is chosen yet, saving asks for one.
  const mayEdit = calendar?.mayEdit ?? true
  const isDraft = stored?.state === 'draft'
  return (
    <div className="event-acts">
      {isDraft ? (
        <>
          <button type="submit" className="btn btn-outline-ink" disabled={isSaving}>
            {t('saveAsDraft')}
          </button>
          <button type="button" className="btn btn-spruce" disabled={isSaving} onClick={() => onSave(false)}>
            {mayEdit ? t('letItGoOut') : t('handInForSignOff')}
          </button>
        </>
      ) : (
        <>
          <button type="submit" className="btn btn-spruce" disabled={isSaving}>
            {isSaving ? t('saving') : sayAct({ stored, mayEdit, isApproval, isOut })}
          </button>
          {!isOut && (
            <button type="button" className="btn btn-outline-ink" disabled={isSaving} onClick={() => onSave(true)}>
              {t('saveAsDraft')}
            </button>
          )}
        </>
      )}
      <Link className="btn btn-quiet" to={planOn(day)}>
        {t('discard')}
      </Link>
      <span className="stretch" />
      {stored && (
        <>
          <Link
            className="btn btn-quiet"
            to={`/events/new?copy=${stored.id}&date=${encodeURIComponent(stored.recurrenceId)}`}
            title={t('aNewEventLikeThis')}
          >
            {t('copy')}
          </Link>
          {isOut && stored.state !== 'cancelled' && !stored.isFollowed && (
            <button type="button" className="btn btn-outline-ink" onClick={() => onAct('cancel')}>
              {stored.recurs ? t('cancelDates') : t('cancelIt')}
            </button>
          )}
          <button type="button" className="btn btn-brick" onClick={() => onAct('remove')}>
            {t(stored.isFollowed ? 'hideHere' : 'remove')}
          </button>
        </>
      )}
    </div>
  )
}

interface Situation {
  stored: CalendarEvent | null
  mayEdit: boolean
  isApproval: boolean
  isOut: boolean
}

function sayAct({ stored, mayEdit, isApproval, isOut }: Situation): string {
  if (isApproval) return t('saveAndApprove')
  if (stored?.state === 'waiting') return mayEdit ? t('saveAndApprove') : t('saveItGoesOnWaiting')
  if (mayEdit) return t('save')
  return isOut ? t('handInTheChange') : t('handInForSignOff')
}
