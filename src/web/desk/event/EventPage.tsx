import { useDeferredValue } from 'react'
import { useForm, useWatch } from 'react-hook-form'
import { Link } from 'react-router'
import { sayDay } from '../../shared/days'
import type { Calendar, Happening, LineReading } from '../api'
import { sayAgo } from '../Delivery'
import { useConsequences, useLists, useOrganisation } from '../queries'
import { CalendarChoice } from './CalendarChoice'
import { ConsequencesPanel } from './ConsequencesPanel'
import { Conflict } from './Conflict'
import { Refusal } from './DayField'
import { draftOf, requestOf, type Draft } from './draft'
import { LineUnderstood } from './LineUnderstood'
import { RichTextField } from './RichTextField'
import { useEventActs } from './useEventActs'
import { WhenSentence } from './WhenSentence'

interface EventPageProps {
  calendars: Calendar[]
  stored: Happening | null
  draft: Draft
  line: LineReading | null
}

/** One page, two columns: what you say, and what follows from it. */
export function EventPage({ calendars, stored, draft: start, line }: EventPageProps) {
  const { locale } = useOrganisation()
  const lists = useLists().data
  const form = useForm<Draft>({ defaultValues: start })
  const draft = useWatch({ control: form.control }) as Draft
  const set = (change: Partial<Draft>) => {
    for (const [field, value] of Object.entries(change))
      form.setValue(field as keyof Draft, value as never, { shouldDirty: true })
  }
  const acts = useEventActs(stored, form.formState.isDirty || line !== null)
  const { problem, conflict } = acts
  const calendar = calendars.find((one) => one.id === draft.calendarId)
  const save = form.handleSubmit((values) => acts.save(requestOf(values), calendar))
  // Only when and where it happens is asked about: typing a title asks nothing.
  const asked = { ...requestOf(draft), title: null, description: null, categoryId: null, tags: [] }
  const consequences = useConsequences(
    useDeferredValue(JSON.stringify({ event: asked, eventId: stored?.id ?? null, recurrenceId: stored?.recurrenceId ?? null })),
  )

  return (
    <main className="event">
      <form className="event-says" onSubmit={save} noValidate aria-label={stored ? 'Event' : 'New event'}>
        <p className="soft crumbs">
          <Link to={`/plan?day=${start.date}`}>Plan</Link> › {calendar?.name} › {stored ? stored.title : 'New event'}
          {stored?.recurs && ` › ${sayDay(stored.date, locale, { weekday: 'long', day: 'numeric', month: 'long' })}`}
        </p>
        <h1 className="visually-hidden">{stored ? stored.title : 'New event'}</h1>
        {line && <LineUnderstood line={line} />}
        {stored && <StateNotice stored={stored} onRestore={() => acts.act('restore')} />}
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
          <WhenSentence
            draft={draft}
            set={set}
            problem={problem}
            calendarZone={calendar?.zone ?? ''}
            seriesStart={stored?.recurs ? stored.seriesStart : null}
            consequences={consequences.data}
          />
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
              list="known-places"
              aria-invalid={problem?.on('place') !== undefined}
              {...form.register('place')}
            />
            <datalist id="known-places">
              {lists?.places.map((place) => (
                <option key={place.id} value={place.name} />
              ))}
            </datalist>
            <Refusal text={problem?.on('place')} />
          </div>
        </div>
        <div className="event-row">
          <h2 id="kind">Kind</h2>
          <div className="kind-line">
            <select
              className="form-select"
              aria-label="Category"
              value={draft.categoryId ?? ''}
              onChange={(event) => set({ categoryId: event.target.value || null })}
            >
              <option value="">no category</option>
              {lists?.categories.map((category) => (
                <option key={category.id} value={category.id}>
                  {category.name}
                </option>
              ))}
            </select>
            <input
              className="form-control"
              aria-label="Tags"
              placeholder="tags, with commas between"
              {...form.register('tags')}
            />
            <Refusal text={problem?.on('categoryId') ?? problem?.on('tags')} />
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
            onKeepMine={() => acts.save(requestOf(draft), calendar, conflict)}
          />
        )}
        {problem && !conflict && (
          <p className="notice" role="alert">
            {Object.keys(problem.errors).some((field) => field !== 'scope')
              ? 'Not saved yet: see what is marked above.'
              : problem.message}
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
          {stored && <StoredActs stored={stored} onAct={acts.act} />}
        </div>
        {stored?.savedAt && (
          <p className="soft event-saved">
            Saved by {stored.savedBy}, {sayAgo(stored.savedAt)}.{' '}
            <Link to={`/events/${stored.id}/history`}>All earlier versions</Link>
          </p>
        )}
      </form>
      <ConsequencesPanel
        draft={draft}
        set={set}
        answer={consequences}
        calendar={calendar}
        seen={stored?.recurs ? stored.date : null}
      />
      {acts.guard}
    </main>
  )
}

function StoredActs({ stored, onAct }: { stored: Happening; onAct: (act: 'cancel' | 'remove') => void }) {
  return (
    <>
      {stored.state !== 'cancelled' && (
        <button type="button" className="btn btn-outline-ink" onClick={() => onAct('cancel')}>
          Cancel {stored.recurs ? 'dates' : 'it'}
        </button>
      )}
      <button type="button" className="btn btn-brick" onClick={() => onAct('remove')}>
        Remove
      </button>
    </>
  )
}

/** That this date is not as its series says, with the way back. */
function StateNotice({ stored, onRestore }: { stored: Happening; onRestore: () => void }) {
  if (stored.state !== 'cancelled' && stored.differs === '') return null
  const words =
    stored.state === 'cancelled'
      ? stored.isCancelledAlone
        ? 'This date is cancelled. Readers see it struck through.'
        : 'It is cancelled. Readers see it struck through.'
      : `This date differs from its series: ${stored.differs}.`
  return (
    <p className="notice state-notice">
      {words}{' '}
      <button type="button" className="btn btn-outline-ink" onClick={onRestore}>
        {stored.state === 'cancelled' ? 'It takes place after all' : 'Make it as the series again'}
      </button>
    </p>
  )
}
