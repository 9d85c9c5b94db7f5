import { useState } from 'react'
import { newKey } from '../api'
import { onItsDays, type Calendar, type CalendarEvent, type EventForm, type Proposal } from '../types'
import { sayAsked, useChange, useUndo, type Asked } from '../changes/Changes'
import { useLeaveGuard } from '../LeaveGuard'
import { planOn, rememberSavedOn } from '../lastPlan'
import { forWhom } from '../openness'
import { useWrite } from '../useWrite'
import { useToast } from '../Toasts'
import { usePost } from '../usePost'
import { t } from './words'

/** Saving, cancelling, removing and leaving. What was typed stays whatever happens. */
export function useEventActs(
  stored: CalendarEvent | null,
  isDirty: boolean,
  proposal: Proposal | null = null,
  /** What is said beside the event itself, once it is saved. */
  then: (eventId: string) => Promise<void> = () => Promise.resolve(),
) {
  const { problem, isBusy: isSaving, post } = usePost()
  // Where the answer to a save does not arrive, it is asked again: it makes one event all the same.
  const [once] = useState(newKey)
  const write = useWrite()
  const toast = useToast()
  const undo = useUndo()
  const change = useChange()
  const { guard, leaveTo } = useLeaveGuard(isDirty, t('whatYouChangedIsNot'))

  /** @param over What somebody else saved meanwhile, and is to be replaced. */
  const save = (request: EventForm, calendar: Calendar | undefined, over: CalendarEvent | null = null) =>
    post(async () => {
      const base = over ?? stored
      if (base) {
        await makeChange(base, {
          act: 'edit',
          event: request,
          submissionId: proposal?.id ?? null,
          scope: proposal?.scope ?? null,
        })
        return
      }
      const saved = onItsDays(await write('POST', '/events', request, { once }))
      await then(saved.id)
      const asks = saved.asksFor.length > 0 ? ` ${sayAsked(saved.asksFor)}` : ''
      toast(`${sayMade(saved, calendar)}${asks}`, () => saved.actId && undo(saved.actId))
      rememberSavedOn(request.calendarId)
      leaveTo(planOn(request.date))
    })

  const makeChange = async (base: CalendarEvent, what: Pick<Asked, 'act'> & Partial<Asked>) => {
    const done = await change(base.id, {
      recurrenceId: base.recurrenceId,
      version: base.version ?? 0,
      event: null,
      move: null,
      ...what,
    })
    if (!done) return
    await then(base.id)
    rememberSavedOn(what.event?.calendarId ?? base.calendarId)
    leaveTo(planOn(done.date))
  }

  return {
    problem,
    /** What is stored now, when somebody else saved first. */
    conflict: problem?.status === 409 ? (problem.current as CalendarEvent | null) : null,
    isSaving,
    save,
    act: (act: 'cancel' | 'remove' | 'restore') => post(async () => (stored ? makeChange(stored, { act }) : undefined)),
    guard,
  }
}

function sayMade(saved: CalendarEvent, calendar: Calendar | undefined): string {
  if (saved.state === 'draft') return t('titleIsKeptAsA', { title: saved.title, name: calendar?.name })
  if (saved.state === 'waiting') return t('titleIsHandedInOn', { title: saved.title, name: calendar?.name })
  return `${t('titleIsSavedOnName', { title: saved.title, name: calendar?.name })} ${whoSees(calendar)}`.trim()
}

export function whoSees(calendar: Calendar | undefined): string {
  if (!calendar) return ''
  return { everyone: t('everyoneSeesIt'), members: t('membersSeeIt'), editors: t('onlyItsEditorsSeeIt') }[
    forWhom(calendar.disclosure)
  ]
}
