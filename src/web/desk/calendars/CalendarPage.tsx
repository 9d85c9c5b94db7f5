import { useEffect, useEffectEvent, useState, type FormEvent } from 'react'
import { Link, useNavigate, useParams, useSearchParams } from 'react-router'
import { Plate } from '../../shared/Plate'
import type { Calendar, CalendarRequest, Colour, Disclosure, Organisation, Zone } from '../types'
import { Refusal } from '../Refusal'
import { NothingHere } from '../NothingHere'
import { Level } from '../Level'
import { freeColour, hueName } from '../hues'
import { disclosures, forWhomWords, levelsOf, type ForWhom } from '../openness'
import { useCalendar, useCalendars, useColours, useOpening, usePlate, useZones } from './queries'
import { useWrite } from '../useWrite'
import { ZoneChoice } from '../ZoneChoice'
import { useOrganisation, useSession } from '../session/queries'
import { useToast } from '../Toasts'
import { useFields } from '../useFields'
import { usePost } from '../usePost'
import { OpenToEveryone } from './OpenToEveryone'
import { WhatFollows } from './WhatFollows'
import { t } from './words'

interface Fields {
  name: string
  plate: string
  colour: string
  zone: string
  description: string
  readerships: string
  forWhom: ForWhom | 'same'
  requiresSignOff: boolean
  names: NonNullable<Calendar['disclosure']['names']>
}

export function CalendarPage() {
  const { id } = useParams()
  const likeId = useSearchParams()[0].get('like')
  const stored = useCalendar(id)
  const all = useCalendars().data
  const colours = useColours().data
  const zones = useZones().data
  const organisation = useOrganisation()
  const isAdministrator = useSession().data?.person?.isAdministrator ?? false
  if (stored.isError) return <NothingHere detail={stored.error.message} />
  if (!isAdministrator) return <NothingHere detail={t('onlyAnAdministratorCanMake')} />
  if (!colours || !zones || !all || (id && !stored.data)) return <p className="page">{t('opening')}</p>
  const calendar = id ? (stored.data ?? null) : null
  const like = calendar ? null : (all.find((one) => one.id === likeId) ?? null)
  return (
    <CalendarForm
      key={id ?? `new ${likeId}`}
      calendar={calendar}
      like={like}
      fields={fieldsOf(calendar, like, all, colours, organisation)}
      colours={colours}
      zones={zones}
    />
  )
}

function fieldsOf(
  calendar: Calendar | null,
  like: Calendar | null,
  all: Calendar[],
  colours: Colour[],
  organisation: Organisation,
): Fields {
  if (calendar)
    return {
      name: calendar.name,
      plate: calendar.plate,
      colour: calendar.colour,
      zone: calendar.zone,
      description: calendar.description,
      readerships: calendar.readerships.join(', '),
      forWhom: 'same',
      requiresSignOff: calendar.requiresSignOff,
      names: calendar.disclosure.names ?? 'members',
    }
  const free = freeColour(colours, all)
  return {
    name: '',
    plate: '',
    colour: free?.name ?? '',
    zone: like?.zone ?? organisation.zone,
    description: '',
    readerships: like?.readerships.join(', ') ?? '',
    forWhom: like ? 'same' : 'editors',
    requiresSignOff: like?.requiresSignOff ?? true,
    names: like?.disclosure.names ?? 'members',
  }
}

interface CalendarFormProps {
  calendar: Calendar | null
  /** Another calendar whose settings, roles and groups a new one gets. */
  like: Calendar | null
  fields: Fields
  colours: Colour[]
  zones: Zone[]
}

function CalendarForm({ calendar, like, fields, colours, zones }: CalendarFormProps) {
  const { values, set, begin, text, choice, tick } = useFields(fields)
  const { problem, isBusy, post, forget } = usePost()
  const [asking, setAsking] = useState(false)
  // The version that the form was filled from; what is fetched meanwhile does not raise it.
  const [version, setVersion] = useState(calendar?.version ?? null)
  const table = (calendar ?? like)?.disclosure ?? disclosures.editors
  const navigate = useNavigate()
  const write = useWrite()
  const toast = useToast()
  const [proposed, setProposed] = useState('')
  useProposedPlate(calendar === null, values.name, values.plate !== proposed, (plate) => {
    setProposed(plate)
    set({ plate })
  })

  const save = () => {
    setAsking(false)
    const { forWhom: whom, readerships, names: namesTo, ...rest } = values
    const names = readerships.split(',').map((name) => name.trim())
    const request: CalendarRequest = {
      ...rest,
      disclosure: { ...(whom === 'same' ? table : disclosures[whom]), names: namesTo },
      version,
      like: like?.id ?? null,
      readerships: names.filter((name) => name !== ''),
    }
    return post(async () => {
      const saved = calendar
        ? await write('PUT', `/calendars/${calendar.id}`, request)
        : await write('POST', '/calendars', request)
      toast([t('nameIsSaved', { name: saved.name }), calendar ? '' : sayForWhom(saved.disclosure)].join(' ').trim())
      await navigate(!calendar && saved.disclosure.everyone !== 'nothing' ? `/calendars/${saved.id}/publishing` : '/calendars')
    })
  }
  const takeTheirs = (theirs: Calendar) => {
    begin(fieldsOf(theirs, null, [], colours, {} as Organisation))
    setVersion(theirs.version)
    forget()
  }
  const submit = (event: FormEvent) => {
    event.preventDefault()
    const opens = values.forWhom === 'everyone' || (like !== null && values.forWhom === 'same' && table.everyone !== 'nothing')
    if (!calendar && opens) setAsking(true)
    else void save()
  }
  const refused = (field: keyof Fields) => ({
    'aria-invalid': problem?.on(field) !== undefined,
    'aria-describedby': `${field}-refusal`,
  })

  return (
    <main className="page calendar-page">
      <p className="soft crumbs">
        <Link to="/calendars">{t('calendars')}</Link> › {calendar?.name ?? t('newCalendar')}
      </p>
      <h1>{calendar ? calendar.name : t('newCalendar')}</h1>
      {like && <p className="soft">{t('withTheSettingsTheRoles', { name: like.name })}</p>}
      {calendar?.isArchived && <p className="notice">{t('itIsArchivedNobodyChanges')}</p>}
      <form onSubmit={submit} noValidate>
        <div className="form-row">
          <label htmlFor="name">{t('name')}</label>
          <div>
            <input id="name" className="form-control" autoFocus={!calendar} {...refused('name')} {...text('name')} />
            <Refusal id="name-refusal" text={problem?.on('name')} />
          </div>
        </div>
        <div className="form-row">
          <label htmlFor="plate">{t('plate')}</label>
          <div>
            <span className="plate-line">
              <input id="plate" className="form-control plate-field" maxLength={8} {...refused('plate')} {...text('plate')} />
              <Plate code={values.plate.toUpperCase()} colour={values.colour} />
              <span className="soft">{t('standsOnEveryEntry')}</span>
            </span>
            <Refusal id="plate-refusal" text={problem?.on('plate')} />
          </div>
        </div>
        <fieldset className="form-row">
          <legend>{t('colourAndHatch')}</legend>
          <div className="colours">
            {colours.map((colour) => (
              <label key={colour.name} className={`hue-${colour.name}`}>
                <input type="radio" className="visually-hidden" name="colour" {...choice('colour', colour.name)} />
                <span className="swatch band" title={hueName(colour.name)} />
                <span className="visually-hidden">{hueName(colour.name)}</span>
              </label>
            ))}
          </div>
        </fieldset>
        <div className="form-row">
          <label htmlFor="zone">{t('timeZone')}</label>
          <div>
            <ZoneChoice id="zone" {...refused('zone')} value={values.zone} zones={zones} onChange={(zone) => set({ zone })} />
            <Refusal id="zone-refusal" text={problem?.on('zone')} />
          </div>
        </div>
        <div className="form-row">
          <label htmlFor="description">{t('description')}</label>
          <div>
            <input id="description" className="form-control" {...refused('description')} {...text('description')} />
            <Refusal id="description-refusal" text={problem?.on('description')} />
          </div>
        </div>
        <div className="form-row">
          <label htmlFor="readerships">{t('itsReaders')}</label>
          <div>
            <input
              id="readerships"
              className="form-control"
              placeholder={t('juniorFamiliesCrewFamilies')}
              {...refused('readerships')}
              {...text('readerships')}
            />
            <span className="soft">{t('namesOfGroupsWithCommas')}</span>
            <Refusal id="readerships-refusal" text={problem?.on('readerships')} />
          </div>
        </div>
        <div className="form-row">
          <label htmlFor="names">{t('namesOfPeople')}</label>
          <div>
            <p className="sentence">
              {t('namesAreToldTo')}{' '}
              <select id="names" className="form-select inline-choice" {...text('names')}>
                <option value="editors">{t('namesToEditors')}</option>
                <option value="members">{t('namesToMembers')}</option>
                <option value="link">{t('namesToLink')}</option>
                <option value="everyone">{t('namesToEveryone')}</option>
              </select>
            </p>
            <span className="soft">{t('whereTheySeeAll')}</span>
            {calendar && values.names !== calendar.disclosure.names && <NamesFollow calendar={calendar} names={values.names} />}
          </div>
        </div>
        <div className="form-row">
          <span className="row-label">{t('signOff')}</span>
          <label className="tick">
            <input type="checkbox" {...tick('requiresSignOff')} />
            <span>
              {t('whatContributorsMakeOrChange')}
              <br />
              <span className="soft">{t('withoutItTheirChangesGo')}</span>
            </span>
          </label>
        </div>
        {calendar ? (
          <div className="form-row">
            <span className="row-label">{t('whoSeesIt')}</span>
            <div>
              <ul className="levels-list">
                {levelsOf(calendar.disclosure).map(({ audience, detail }) => (
                  <li key={audience}>
                    <span>{audience}</span> <Level detail={detail} />
                  </li>
                ))}
              </ul>
              <Link to="/calendars">{t('changeItInTheTable')}</Link>
            </div>
          </div>
        ) : (
          <fieldset className="form-row">
            <legend>{t('whoIsItFor')}</legend>
            <div className="for-whom">
              {like && (
                <label>
                  <input type="radio" name="forWhom" {...choice('forWhom', 'same')} />
                  <span>
                    <b>{t('theSameAsName', { name: like.name })}</b>
                    <br />
                    <span className="soft">
                      {levelsOf(like.disclosure)
                        .map(({ audience, detail }) => `${audience}: ${detail}`)
                        .join(', ')}
                    </span>
                  </span>
                </label>
              )}
              {(Object.keys(forWhomWords) as ForWhom[]).map((whom) => (
                <label key={whom}>
                  <input type="radio" name="forWhom" {...choice('forWhom', whom)} />
                  <span>
                    <b>{forWhomWords[whom].name}</b>
                    <br />
                    <span className="soft">{forWhomWords[whom].about}</span>
                  </span>
                </label>
              ))}
            </div>
          </fieldset>
        )}
        {problem?.status === 409 && problem.current !== null && (
          <div className="conflict" role="alert">
            <p>{t.rich('somebodyElseSavedNameWhile', { name: (problem.current as Calendar).name }, <b />)}</p>
            <button
              type="button"
              className="btn btn-outline-ink"
              onClick={() => {
                setVersion((problem.current as Calendar).version)
                forget()
              }}
            >
              {t('keepMineToBeSaved')}
            </button>{' '}
            <button type="button" className="btn btn-quiet" onClick={() => takeTheirs(problem.current as Calendar)}>
              {t('takeTheirsDropMine')}
            </button>
          </div>
        )}
        {problem && problem.status !== 409 && (
          <p className="notice" role="alert">
            {Object.keys(problem.errors).length > 0 ? t('notSavedYetSeeWhat') : problem.message}
          </p>
        )}
        <div className="event-acts">
          <button type="submit" className="btn btn-spruce" disabled={isBusy}>
            {calendar ? t('save') : t('makeTheCalendar')}
          </button>
          <Link className="btn btn-quiet" to="/calendars">
            {t('discard')}
          </Link>
          {calendar && (
            <>
              <span className="stretch" />
              <Link to={`/calendars/${calendar.id}/publishing`}>{t('publishIt')}</Link>
            </>
          )}
        </div>
      </form>
      {asking && <OpenToEveryone name={values.name} events={0} onOpen={() => void save()} onLeave={() => setAsking(false)} />}
    </main>
  )
}

function sayForWhom(disclosure: Disclosure): string {
  if (disclosure.everyone !== 'nothing') return t('itIsOpenToEveryone')
  return disclosure.members === 'nothing' ? t('onlyItsEditorsSeeIt') : t('membersSeeIt')
}

/** Follows the name with a free plate until somebody writes one of their own. */
function useProposedPlate(isNew: boolean, name: string, isWritten: boolean, propose: (plate: string) => void) {
  const proposal = usePlate(name, isNew && !isWritten).data?.plate
  // What somebody wrote stays, also where a proposal for the name is known from before.
  const take = useEffectEvent((plate: string) => (isWritten ? undefined : propose(plate)))
  useEffect(() => {
    if (proposal !== undefined) take(proposal)
  }, [proposal])
}

/** Which events newly tell whom who is responsible. */
function NamesFollow({ calendar, names }: { calendar: Calendar; names: Fields['names'] }) {
  const opening = useOpening(calendar.id, { ...calendar.disclosure, names }, calendar.version)
  const openings = (opening.data ?? []).filter((one) => one.withNames.count > 0)
  return openings.length > 0 ? <WhatFollows openings={openings} /> : null
}
