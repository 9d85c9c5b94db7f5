import { useEffect, useState } from 'react'
import { useForm, useWatch } from 'react-hook-form'
import { Link, useNavigate, useParams, useSearchParams } from 'react-router'
import { Plate } from '../../shared/Plate'
import {
  call,
  Problem,
  type Calendar,
  type CalendarRequest,
  type Colour,
  type Disclosure,
  type Organisation,
  type Zone,
} from '../api'
import { Refusal } from '../Refusal'
import { NothingHere } from '../NothingHere'
import { Level } from '../Level'
import { disclosures, forWhomWords, levelsOf, type ForWhom } from '../openness'
import { useCalendar, useCalendars, useColours, useOrganisation, useRefresh, useSession, useZones } from '../queries'
import { useToast } from '../Toasts'
import { OpenToEveryone } from './OpenToEveryone'

interface Fields {
  name: string
  plate: string
  colour: string
  zone: string
  description: string
  readerships: string
  forWhom: ForWhom | 'same'
  requiresSignOff: boolean
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
  if (!isAdministrator) return <NothingHere detail="Only an administrator can make calendars and say whom they are for." />
  if (!colours || !zones || !all || (id && !stored.data)) return <p className="page">Opening …</p>
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
    }
  const free = colours.find((colour) => !all.some((one) => one.colour === colour.name)) ?? colours[0]
  return {
    name: '',
    plate: '',
    colour: free?.name ?? '',
    zone: like?.zone ?? organisation.zone,
    description: '',
    readerships: like?.readerships.join(', ') ?? '',
    forWhom: like ? 'same' : 'editors',
    requiresSignOff: like?.requiresSignOff ?? true,
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
  const form = useForm<Fields>({ defaultValues: fields })
  const [problem, setProblem] = useState<Problem | null>(null)
  const [asking, setAsking] = useState(false)
  // The version that the form was filled from; what is fetched meanwhile does not raise it.
  const [version, setVersion] = useState(calendar?.version ?? null)
  const table = (calendar ?? like)?.disclosure ?? disclosures.editors
  const navigate = useNavigate()
  const refresh = useRefresh()
  const toast = useToast()
  const values = useWatch({ control: form.control }) as Fields
  useProposedPlate(calendar === null, values.name, form.formState.dirtyFields.plate === true, (plate) =>
    form.setValue('plate', plate),
  )

  const save = async (confirmed: Fields) => {
    setAsking(false)
    setProblem(null)
    const { forWhom: whom, readerships, ...rest } = confirmed
    const names = readerships.split(',').map((name) => name.trim())
    const request: CalendarRequest = {
      ...rest,
      disclosure: whom === 'same' ? table : disclosures[whom],
      version,
      like: like?.id ?? null,
      readerships: names.filter((name) => name !== ''),
    }
    try {
      const saved = calendar ? await call('PUT', `/calendars/${calendar.id}`, request) : await call('POST', '/calendars', request)
      await refresh.everything()
      toast(`${saved.name} is saved. ${calendar ? '' : sayForWhom(saved.disclosure)}`)
      await navigate(!calendar && saved.disclosure.everyone !== 'nothing' ? `/calendars/${saved.id}/publishing` : '/calendars')
    } catch (failed) {
      setProblem(failed instanceof Problem ? failed : new Problem(0, '', String(failed)))
    }
  }
  const takeTheirs = (theirs: Calendar) => {
    form.reset(fieldsOf(theirs, null, [], colours, {} as Organisation))
    setVersion(theirs.version)
    setProblem(null)
  }
  const submit = form.handleSubmit((confirmed) => {
    const opens =
      confirmed.forWhom === 'everyone' || (like !== null && confirmed.forWhom === 'same' && table.everyone !== 'nothing')
    if (!calendar && opens) setAsking(true)
    else return save(confirmed)
  })
  const refused = (field: keyof Fields) => ({
    'aria-invalid': problem?.on(field) !== undefined,
    'aria-describedby': `${field}-refusal`,
  })

  return (
    <main className="page calendar-page">
      <p className="soft crumbs">
        <Link to="/calendars">Calendars</Link> › {calendar?.name ?? 'New calendar'}
      </p>
      <h1>{calendar ? calendar.name : 'New calendar'}</h1>
      {like && <p className="soft">With the settings, the roles and the groups of {like.name}. Its events stay there alone.</p>}
      {calendar?.isArchived && (
        <p className="notice">It is archived: nobody changes its events. Its page, embeds and feed stay as they are.</p>
      )}
      <form onSubmit={submit} noValidate>
        <div className="form-row">
          <label htmlFor="name">Name</label>
          <div>
            <input id="name" className="form-control" autoFocus={!calendar} {...refused('name')} {...form.register('name')} />
            <Refusal id="name-refusal" text={problem?.on('name')} />
          </div>
        </div>
        <div className="form-row">
          <label htmlFor="plate">Plate</label>
          <div>
            <span className="plate-line">
              <input
                id="plate"
                className="form-control plate-field"
                maxLength={8}
                {...refused('plate')}
                {...form.register('plate')}
              />
              <Plate code={values.plate.toUpperCase()} colour={values.colour} />
              <span className="soft">stands on every entry; 1 to 4 letters or digits</span>
            </span>
            <Refusal id="plate-refusal" text={problem?.on('plate')} />
          </div>
        </div>
        <fieldset className="form-row">
          <legend>Colour and hatch</legend>
          <div className="colours">
            {colours.map((colour) => (
              <label key={colour.name} className={`hue-${colour.name}`}>
                <input type="radio" className="visually-hidden" value={colour.name} {...form.register('colour')} />
                <span className="swatch band" title={colour.name} />
                <span className="visually-hidden">{colour.name}</span>
              </label>
            ))}
          </div>
        </fieldset>
        <div className="form-row">
          <label htmlFor="zone">Time zone</label>
          <div>
            <input id="zone" className="form-control" list="zones" {...refused('zone')} {...form.register('zone')} />
            <datalist id="zones">
              {zones.map((zone) => (
                <option key={zone.name} value={zone.name}>
                  {zone.offset}
                </option>
              ))}
            </datalist>
            <Refusal id="zone-refusal" text={problem?.on('zone')} />
          </div>
        </div>
        <div className="form-row">
          <label htmlFor="description">Description</label>
          <div>
            <input id="description" className="form-control" {...refused('description')} {...form.register('description')} />
            <Refusal id="description-refusal" text={problem?.on('description')} />
          </div>
        </div>
        <div className="form-row">
          <label htmlFor="readerships">Its readers</label>
          <div>
            <input
              id="readerships"
              className="form-control"
              placeholder="Junior families, Crew families"
              {...refused('readerships')}
              {...form.register('readerships')}
            />
            <span className="soft">
              Names of groups, with commas between. Calendars with the same readers are checked for events at the same time.
            </span>
            <Refusal id="readerships-refusal" text={problem?.on('readerships')} />
          </div>
        </div>
        <div className="form-row">
          <span className="row-label">Sign-off</span>
          <label className="tick">
            <input type="checkbox" {...form.register('requiresSignOff')} />
            <span>
              What contributors make or change waits until an editor has looked at it
              <br />
              <span className="soft">Without it their changes go out at once. Editors’ changes always do.</span>
            </span>
          </label>
        </div>
        {calendar ? (
          <div className="form-row">
            <span className="row-label">Who sees it</span>
            <div>
              <ul className="levels-list">
                {levelsOf(calendar.disclosure).map(({ audience, detail }) => (
                  <li key={audience}>
                    <span>{audience}</span> <Level detail={detail} />
                  </li>
                ))}
              </ul>
              <Link to="/calendars">Change it in the table of calendars</Link>
            </div>
          </div>
        ) : (
          <fieldset className="form-row">
            <legend>Who is it for</legend>
            <div className="for-whom">
              {like && (
                <label>
                  <input type="radio" value="same" {...form.register('forWhom')} />
                  <span>
                    <b>The same as {like.name}</b>
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
                  <input type="radio" value={whom} {...form.register('forWhom')} />
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
            <p>
              <b>Somebody else saved {(problem.current as Calendar).name} while you were working on it.</b> Nothing of yours is
              saved yet.
            </p>
            <button
              type="button"
              className="btn btn-outline-ink"
              onClick={() => {
                setVersion((problem.current as Calendar).version)
                setProblem(null)
              }}
            >
              Keep mine, to be saved in its place
            </button>{' '}
            <button type="button" className="btn btn-quiet" onClick={() => takeTheirs(problem.current as Calendar)}>
              Take theirs, drop mine
            </button>
          </div>
        )}
        {problem && problem.status !== 409 && (
          <p className="notice" role="alert">
            {Object.keys(problem.errors).length > 0 ? 'Not saved yet: see what is marked above.' : problem.message}
          </p>
        )}
        <div className="event-acts">
          <button type="submit" className="btn btn-spruce" disabled={form.formState.isSubmitting}>
            {calendar ? 'Save' : 'Make the calendar'}
          </button>
          <Link className="btn btn-quiet" to="/calendars">
            Discard
          </Link>
          {calendar && (
            <>
              <span className="stretch" />
              <Link to={`/calendars/${calendar.id}/publishing`}>Publish it</Link>
            </>
          )}
        </div>
      </form>
      {asking && (
        <OpenToEveryone name={values.name} events={0} onOpen={() => save(form.getValues())} onLeave={() => setAsking(false)} />
      )}
    </main>
  )
}

function sayForWhom(disclosure: Disclosure): string {
  if (disclosure.everyone !== 'nothing') return 'It is open to everyone.'
  return disclosure.members === 'nothing' ? 'Only its editors see it.' : 'Members see it.'
}

/** Follows the name with a free plate until somebody writes one of their own. */
function useProposedPlate(isNew: boolean, name: string, isWritten: boolean, propose: (plate: string) => void) {
  useEffect(() => {
    if (!isNew || isWritten || name.trim() === '') return
    const stop = new AbortController()
    call('GET', `/calendars/plate?name=${encodeURIComponent(name)}`, undefined, { signal: stop.signal }).then(
      ({ plate }) => propose(plate),
      () => undefined,
    )
    return () => stop.abort()
    // Only the name asks for a new proposal.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [isNew, name, isWritten])
}
