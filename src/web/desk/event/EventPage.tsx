import { useDeferredValue, useState } from 'react'
import { Link } from 'react-router'
import { planOn } from '../lastPlan'
import { sayDay } from '../../shared/days'
import type { Calendar, CalendarEvent, EventForm, LineReading, Proposal, Template } from '../types'
import { sayAgo } from '../Delivery'
import { useConsequences, useDestinations } from './queries'
import { useLists, usePlacesToType } from '../lists/queries'
import { useOrganisation } from '../session/queries'
import { AlsoInto } from '../elsewhere/AlsoInto'
import { useAlsoInto } from '../elsewhere/useAlsoInto'
import { FollowedNotice } from '../sources/FollowedNotice'
import { useFields } from '../useFields'
import { useSettled } from '../useSettled'
import { CalendarChoice } from './CalendarChoice'
import { ConsequencesPanel } from './ConsequencesPanel'
import { Conflict } from './Conflict'
import { Refusal } from '../Refusal'
import { requestOf, withUsual, type Draft } from './draft'
import { MoreFields } from './MoreFields'
import { AboutNotices, CopyNotice, ProposalNotice, StateNotice } from './Notices'
import { PlacementChoice } from './PlacementChoice'
import { RichTextField } from './RichTextField'
import { SaveActs } from './SaveActs'
import { ShownTo } from './ShownTo'
import { StartFrom } from './StartFrom'
import { TemplateActs } from './TemplateActs'
import { useEventActs } from './useEventActs'
import { WhenSentence } from './WhenSentence'
import { t } from './words'

interface EventPageProps {
  calendars: Calendar[]
  stored: CalendarEvent | null
  draft: Draft
  line?: LineReading | null
  /** What was handed in, and is looked at again. */
  proposal?: Proposal | null
  /** The event that a new one is like. */
  copyOf?: CalendarEvent | null
  /** What is usual on a calendar, for a new event that nothing was said of yet. */
  usual?: (calendarId: string) => Template | undefined
}

/** One page, two columns: what you say, and what follows from it. */
export function EventPage({
  calendars,
  stored,
  draft: start,
  line = null,
  proposal = null,
  copyOf = null,
  usual,
}: EventPageProps) {
  const { locale } = useOrganisation()
  const lists = useLists().data
  const placesToType = usePlacesToType()
  const { values: draft, set, text, isChanged } = useFields(start)
  const { offered, also, setAlso, isAlsoChanged, saveAlso } = useAlsoInto([draft.calendarId, ...draft.placements], stored)
  const acts = useEventActs(stored, isChanged || isAlsoChanged || line !== null || copyOf !== null, proposal, saveAlso)
  const { problem, conflict } = acts
  const calendar = calendars.find((one) => one.id === draft.calendarId)
  const shownOn = calendars.filter((one) => one.id === draft.calendarId || draft.placements.includes(one.id))
  const [isAsked, setAsked] = useState(false)
  const isNowhere = draft.calendarId === ''
  const isFollowed = stored?.isFollowed ?? false
  const save = (isDraft: boolean) => {
    setAsked(isNowhere)
    if (isNowhere) document.querySelector<HTMLElement>('.calendar-choice input')?.focus()
    else void acts.save(requestOf(draft, isDraft), calendar)
  }
  // What follows for its dates is asked at once, and not for typing a title.
  const isDraft = stored?.state === 'draft'
  const asking = (event: Partial<EventForm>) =>
    JSON.stringify({ event, eventId: stored?.id ?? null, recurrenceId: stored?.recurrenceId ?? null })
  const told = { ...requestOf(draft, isDraft), files: [], contact: '', notes: '' }
  // Its category counts: a week may hold too many of it.
  const consequences = useConsequences(
    useDeferredValue(asking({ ...told, title: '', description: '', tags: [], links: [], reminder: null })),
    !isNowhere,
  )
  // Filters of editions look at what is said of it, too.
  const destinations = useDestinations(useSettled(asking(told)), !isNowhere)

  return (
    <main className="event">
      <form
        className="event-says"
        onSubmit={(event) => {
          event.preventDefault()
          save(isDraft)
        }}
        noValidate
        aria-label={stored ? t('event') : t('newEvent')}
      >
        <p className="soft crumbs">
          <Link to={planOn(start.date)}>{t('plan')}</Link> › {calendar ? `${calendar.name} › ` : ''}{' '}
          {stored ? stored.title : t('newEvent')}
          {stored?.recurs && ` › ${sayDay(stored.date, locale, { weekday: 'long', day: 'numeric', month: 'long' })}`}
        </p>
        {usual && !line && <StartFrom calendars={calendars} chosen={draft.calendarId} />}
        <h1 className="visually-hidden">{stored ? stored.title : t('newEvent')}</h1>
        {copyOf && <CopyNotice copyOf={copyOf} />}
        {proposal && <ProposalNotice stored={stored} proposal={proposal} />}
        {stored && <StateNotice stored={stored} onRestore={() => acts.act('restore')} />}
        {stored?.isFollowed && <FollowedNotice stored={stored} />}
        {stored && !proposal && <AboutNotices stored={stored} calendars={calendars} />}
        <input
          className="title-field"
          aria-label={t('title')}
          placeholder={t('whatHappens')}
          autoFocus={!stored}
          readOnly={isFollowed}
          aria-invalid={problem?.on('title') !== undefined}
          aria-describedby="title-refusal"
          {...text('title')}
        />
        <Refusal id="title-refusal" text={problem?.on('title')} />
        <div className="event-row">
          <h2>{t('when')}</h2>
          <fieldset disabled={isFollowed}>
            <WhenSentence
              draft={draft}
              set={set}
              problem={problem}
              calendarZone={calendar?.zone ?? ''}
              seriesStart={stored?.recurs ? stored.seriesStart : null}
              consequences={consequences.data}
            />
          </fieldset>
        </div>
        <div className="event-row">
          <h2>{t('calendar')}</h2>
          <div>
            <fieldset disabled={isFollowed}>
              <CalendarChoice
                calendars={calendars}
                value={draft.calendarId}
                onChange={(calendarId) => set({ calendarId, ...withUsual(draft, usual?.(calendarId)) })}
              />
            </fieldset>
            {!isNowhere && (
              <PlacementChoice
                calendars={calendars}
                home={draft.calendarId}
                value={draft.placements}
                before={stored?.placements ?? []}
                onChange={(placements) => set({ placements })}
              />
            )}
            {offered.data && <AlsoInto offered={offered.data} value={also} onChange={setAlso} />}
            {isNowhere && !isAsked && <span className="soft">{t('whichCalendarIsItOn')}</span>}
            <Refusal
              text={isNowhere && isAsked ? t('chooseItsCalendarFirst') : (problem?.on('calendarId') ?? problem?.on('placements'))}
            />
          </div>
        </div>
        <div className="event-row">
          <h2 id="where">{t('where')}</h2>
          <div>
            <input
              className="form-control"
              aria-labelledby="where"
              list="known-places"
              aria-invalid={problem?.on('place') !== undefined}
              {...text('place')}
            />
            <datalist id="known-places">
              {placesToType.map((name) => (
                <option key={name} value={name} />
              ))}
            </datalist>
            <Refusal text={problem?.on('place')} />
          </div>
        </div>
        <div className="event-row">
          <h2 id="kind">{t('kind')}</h2>
          <div className="kind-line">
            <select
              className="form-select"
              aria-label={t('category')}
              value={draft.categoryId ?? ''}
              onChange={(event) => set({ categoryId: event.target.value || null })}
            >
              <option value="">{t('noCategory')}</option>
              {stored?.category && !lists?.categories.some((category) => category.id === stored.category?.id) && (
                <option value={stored.category.id}>{t('nameNotOfferedAnyMore', { name: stored.category.name })}</option>
              )}
              {lists?.categories.map((category) => (
                <option key={category.id} value={category.id}>
                  {category.name}
                </option>
              ))}
            </select>
            <input className="form-control" aria-label={t('tags')} placeholder={t('tagsWithCommasBetween')} {...text('tags')} />
            <Refusal text={problem?.on('categoryId') ?? problem?.on('tags')} />
          </div>
        </div>
        <div className="event-row" hidden={isFollowed && start.description === ''}>
          <h2 id="about">{t('about')}</h2>
          <div>
            {isFollowed ? (
              <div className="rich-text" dangerouslySetInnerHTML={{ __html: start.description }} />
            ) : (
              <RichTextField labelledBy="about" value={start.description} onChange={(description) => set({ description })} />
            )}
            <Refusal text={problem?.on('description')} />
          </div>
        </div>
        <div className="event-row">
          <h2>{t('shownTo')}</h2>
          <ShownTo draft={draft} set={set} shownOn={shownOn} problem={problem} />
        </div>
        <MoreFields draft={draft} set={set} problem={problem} held={stored?.attached} />
        {conflict && (
          <Conflict
            key={conflict.version}
            mine={requestOf(draft, isDraft)}
            theirs={conflict}
            differing={problem?.differing ?? []}
            onSave={(merged) => acts.save(merged, calendar, conflict)}
          />
        )}
        {problem && !conflict && (
          <p className="notice" role="alert">
            {Object.keys(problem.errors).some((field) => field !== 'scope' && field !== 'act' && field !== 'isDraft')
              ? t('notSavedYetSeeWhat')
              : problem.message}
          </p>
        )}
        <SaveActs
          stored={stored}
          calendar={calendar}
          isApproval={proposal !== null && calendar?.mayEdit === true}
          isSaving={acts.isSaving}
          day={start.date}
          onSave={save}
          onAct={acts.act}
        />
        {calendar?.mayContribute && (
          <TemplateActs key={calendar.id} calendar={calendar} title={draft.title} request={() => requestOf(draft)} />
        )}
        {stored?.savedAt && (
          <p className="soft event-saved">
            {t.rich(
              'savedByAgo',
              { savedBy: stored.savedBy, ago: sayAgo(stored.savedAt) },
              <Link to={`/events/${stored.id}/history`} />,
            )}
          </p>
        )}
      </form>
      <ConsequencesPanel
        draft={draft}
        set={set}
        answer={consequences}
        destinations={destinations.data}
        isNew={stored === null}
        isFollowed={isFollowed}
        shownOn={shownOn}
        seen={stored?.recurs ? stored.date : null}
        seriesStart={stored?.recurs ? stored.seriesStart : null}
        traced={stored && `/events/${stored.id}/trace?date=${stored.recurrenceId}`}
      />
      {acts.guard}
    </main>
  )
}
