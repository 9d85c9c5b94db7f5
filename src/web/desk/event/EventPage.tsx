import { useEffect, useState } from 'react'
import { useForm, useWatch } from 'react-hook-form'
import { Link, useBlocker, useNavigate } from 'react-router'
import { call, Problem, type Calendar, type Happening, type HappeningRequest } from '../api'
import { sayAgo } from '../Delivery'
import { forWhom } from '../openness'
import { useRefresh } from '../queries'
import { useToast } from '../Toasts'
import { CalendarChoice } from './CalendarChoice'
import { ConsequencesPanel } from './ConsequencesPanel'
import { Conflict } from './Conflict'
import { Refusal } from './DayField'
import { draftOf, requestOf, type Draft } from './draft'
import { RichTextField } from './RichTextField'
import { WhenSentence } from './WhenSentence'

interface EventPageProps {
  calendars: Calendar[]
  stored: Happening | null
  draft: Draft
}

/** One page, two columns: what you say, and what follows from it. */
export function EventPage({ calendars, stored, draft: start }: EventPageProps) {
  const form = useForm<Draft>({ defaultValues: start })
  const draft = useWatch({ control: form.control }) as Draft
  const set = (change: Partial<Draft>) => {
    for (const [field, value] of Object.entries(change))
      form.setValue(field as keyof Draft, value as never, { shouldDirty: true })
  }
  const acts = useEventActs(stored, form.formState.isDirty)
  const { problem } = acts
  const calendar = calendars.find((one) => one.id === draft.calendarId)
  const save = form.handleSubmit((values) => acts.save(requestOf(values, acts.version), calendar))
  const conflict = problem?.status === 409 ? (problem.current as Happening | null) : null

  return (
    <main className="event">
      <form className="event-says" onSubmit={save} noValidate aria-label={stored ? 'Event' : 'New event'}>
        <p className="soft crumbs">
          <Link to={`/plan?day=${start.date}`}>Plan</Link> › {calendar?.name} › {stored ? stored.title : 'New event'}
        </p>
        <h1 className="visually-hidden">{stored ? stored.title : 'New event'}</h1>
        <input
          className="title-field"
          aria-label="Title"
          placeholder="What happens?"
          autoFocus={!stored}
          aria-invalid={problem?.on('title') !== undefined}
          aria-describedby="title-refusal"
          {...form.register('title')}
        />
        <Refusal id="title-refusal" text={problem?.on('title')} />
        <div className="event-row">
          <h2>When</h2>
          <WhenSentence draft={draft} set={set} problem={problem} calendarZone={calendar?.zone ?? ''} />
        </div>
        <div className="event-row">
          <h2>Calendar</h2>
          <CalendarChoice calendars={calendars} value={draft.calendarId} onChange={(calendarId) => set({ calendarId })} />
          <Refusal text={problem?.on('calendarId')} />
        </div>
        <div className="event-row">
          <h2 id="where">Where</h2>
          <div>
            <input
              className="form-control"
              aria-labelledby="where"
              aria-invalid={problem?.on('place') !== undefined}
              {...form.register('place')}
            />
            <Refusal text={problem?.on('place')} />
          </div>
        </div>
        <div className="event-row">
          <h2 id="about">About</h2>
          <div>
            <RichTextField labelledBy="about" value={start.description} onChange={(description) => set({ description })} />
            <Refusal text={problem?.on('description')} />
          </div>
        </div>
        {conflict && (
          <Conflict
            mine={draft}
            theirs={draftOf(conflict)}
            savedBy={conflict.savedBy ?? ''}
            isRemoved={conflict.isRemoved}
            onKeepMine={() => acts.save(requestOf(draft, conflict.version), calendar)}
          />
        )}
        {problem && !conflict && (
          <p className="notice" role="alert">
            {Object.keys(problem.errors).length > 0 ? 'Not saved yet: see what is marked above.' : problem.message}
          </p>
        )}
        <div className="event-acts">
          <button type="submit" className="btn btn-spruce" disabled={acts.isSaving}>
            {acts.isSaving ? 'Saving …' : 'Save'}
          </button>
          <Link className="btn btn-quiet" to={`/plan?day=${start.date}`}>
            Discard
          </Link>
          <span className="stretch" />
          {stored?.savedAt && (
            <span className="soft">
              Saved by {stored.savedBy}, {sayAgo(stored.savedAt)}
            </span>
          )}
          {stored && (
            <button type="button" className="btn btn-brick" onClick={() => acts.remove(stored)}>
              Remove
            </button>
          )}
        </div>
      </form>
      <ConsequencesPanel draft={draft} calendar={calendar} />
      {acts.leaving && (
        <div className="leave-guard" role="alertdialog" aria-label="Leave without saving?">
          <p>What you changed is not saved.</p>
          <button type="button" className="btn btn-spruce" autoFocus onClick={acts.stay}>
            Stay here
          </button>
          <button type="button" className="btn btn-quiet" onClick={acts.leave}>
            Leave without saving
          </button>
        </div>
      )}
    </main>
  )
}

/** Saving, removing and leaving. What was typed stays whatever happens. */
function useEventActs(stored: Happening | null, isDirty: boolean) {
  const [problem, setProblem] = useState<Problem | null>(null)
  const [isSaving, setSaving] = useState(false)
  const [isDone, setDone] = useState<string | null>(null)
  const navigate = useNavigate()
  const refresh = useRefresh()
  const toast = useToast()
  const blocker = useBlocker(
    ({ currentLocation, nextLocation }) => isDirty && !isDone && currentLocation.pathname !== nextLocation.pathname,
  )

  useEffect(() => {
    if (isDone) void navigate(isDone)
  }, [isDone, navigate])
  useEffect(() => {
    if (!isDirty || isDone) return
    const warn = (event: BeforeUnloadEvent) => event.preventDefault()
    window.addEventListener('beforeunload', warn)
    return () => window.removeEventListener('beforeunload', warn)
  }, [isDirty, isDone])

  const attempt = async (act: () => Promise<void>) => {
    setSaving(true)
    setProblem(null)
    try {
      await act()
    } catch (failed) {
      const known = failed instanceof Problem ? failed : new Problem(0, '', String(failed))
      setProblem(known)
      // The session may have ended in another window: signing in again must not cost what was typed.
      if (known.type === '/problems/stale-session') await refresh.session()
    } finally {
      setSaving(false)
    }
  }

  const save = (request: HappeningRequest, calendar: Calendar | undefined) =>
    attempt(async () => {
      const saved = stored
        ? await call<Happening>('PUT', `/events/${stored.id}`, request)
        : await call<Happening>('POST', '/events', request)
      await refresh.everything()
      toast(`“${saved.title}” is saved on ${calendar?.name}. ${whoSees(calendar)}`)
      setDone(`/plan?day=${saved.date}`)
    })

  const remove = (happening: Happening) =>
    attempt(async () => {
      const removed = await call<{ version: number }>('DELETE', `/events/${happening.id}?version=${happening.version}`)
      await refresh.everything()
      toast(`“${happening.title}” is removed.`, () => void restore(happening, removed.version))
      setDone(`/plan?day=${happening.date}`)
    })

  const restore = async (happening: Happening, version: number) => {
    try {
      await call('POST', `/events/${happening.id}/restore?version=${version}`)
      toast(`“${happening.title}” is back.`)
    } catch (failed) {
      toast(failed instanceof Error ? failed.message : String(failed))
    }
    await refresh.everything()
  }

  return {
    problem,
    isSaving,
    version: stored?.version ?? null,
    save,
    remove,
    leaving: blocker.state === 'blocked',
    stay: () => blocker.reset?.(),
    leave: () => blocker.proceed?.(),
  }
}

function whoSees(calendar: Calendar | undefined): string {
  if (!calendar) return ''
  return { everyone: 'Everyone sees it.', members: 'Members see it.', editors: 'Only its editors see it.' }[
    forWhom(calendar.disclosure)
  ]
}
