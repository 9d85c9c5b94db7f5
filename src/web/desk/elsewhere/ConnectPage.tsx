import { useState } from 'react'
import { Link, useNavigate, useSearchParams } from 'react-router'
import { todayIn } from '../../shared/days'
import { call } from '../api'
import { useCalendars } from '../calendars/queries'
import { useEditions } from '../editions/queries'
import { Field, WhatWasRefused } from '../Field'
import { NothingHere } from '../NothingHere'
import { useOrganisation } from '../session/queries'
import type { Calendar, EditionLine, FoundElsewhere, SourceAddress } from '../types'
import { useFields } from '../useFields'
import { usePost } from '../usePost'
import { useWrite } from '../useWrite'
import { noAddress } from '../sources/AddressFields'
import { WhatIsWritten, whatOf } from './WhatIsWritten'
import { t } from './words'

/** What is written. */
interface Of {
  edition: EditionLine
  /** Where that is one calendar. */
  calendar: Calendar | undefined
}

/** A server is looked at first, then it is said which of its calendars is written, and what with. */
export function ConnectPage() {
  const [query] = useSearchParams()
  const editions = useEditions()
  const edition = editions.data?.find((one) => one.id === query.get('edition'))
  const calendars = useCalendars()
  if (!editions.data || !calendars.data) return <p className="page">{t('opening')}</p>
  if (!edition) return <NothingHere />
  return <Connect edition={edition} calendar={calendars.data.find((one) => one.id === edition.calendarId)} />
}

function Connect({ edition, calendar }: Of) {
  const [access, setAccess] = useState<SourceAddress>(noAddress)
  const [found, setFound] = useState<FoundElsewhere[] | null>(null)
  const { problem, isBusy, post } = usePost()
  const field = (name: keyof SourceAddress) => ({
    value: access[name] ?? '',
    autoComplete: 'off',
    spellCheck: false,
    onChange: (event: React.ChangeEvent<HTMLInputElement>) => {
      setAccess({ ...access, [name]: event.target.value })
      setFound(null)
    },
  })
  return (
    <main className="page intake follow">
      <p className="soft">
        <Link to={edition.calendarId ? `/calendars/${edition.calendarId}/publishing` : `/editions/${edition.id}`}>
          {edition.name}
        </Link>
      </p>
      <h1>{t('writeElsewhere', { name: edition.name })}</h1>
      <p className="soft">{t('whatIsElsewhere')}</p>
      <form
        onSubmit={(event) => {
          event.preventDefault()
          void post(async () => {
            setFound(null)
            setFound(await call('POST', '/targets/look', { editionId: edition.id, access }))
          })
        }}
      >
        <Field
          id="address"
          label={t('server')}
          about={t('serverIsKept')}
          placeholder={t('serverExample')}
          inputMode="url"
          problem={problem}
          {...field('address')}
        />
        <div className="source-pair">
          <Field id="user" label={t('user')} problem={problem} {...field('user')} />
          <Field id="password" label={t('password')} type="password" problem={problem} {...field('password')} />
        </div>
        <button type="submit" className="btn btn-outline-ink" disabled={isBusy || (access.address ?? '').trim() === ''}>
          {isBusy ? t('looking') : t('findCalendars')}
        </button>
        <WhatWasRefused problem={problem} fields={['address', 'user', 'password']} />
      </form>
      {found && <Found key={JSON.stringify(found)} found={found} access={access} edition={edition} calendar={calendar} />}
    </main>
  )
}

/** Those who see something of a calendar, as many as there are. */
const widest = (calendar: Calendar | undefined) =>
  (['everyone', 'link'] as const).find((one) => calendar && calendar.disclosure[one] !== 'nothing') ?? 'members'

interface FoundProps extends Of {
  found: FoundElsewhere[]
  access: SourceAddress
}

function Found({ found, access, edition, calendar }: FoundProps) {
  const free = found.filter((one) => one.isWritable && !one.isTaken)
  const today = todayIn(useOrganisation().zone)
  const fields = useFields({
    calendar: free.length === 1 ? (free[0]?.address ?? '') : '',
    name: '',
    audience: widest(calendar),
    takes: 'all',
    from: today,
    until: '',
  })
  const { values, text, choice } = fields
  const { problem, isBusy, post } = usePost()
  const write = useWrite()
  const navigate = useNavigate()
  const chosen = found.find((one) => one.address === values.calendar)
  return (
    <form
      className="source-where"
      onSubmit={(event) => {
        event.preventDefault()
        void post(async () => {
          const { id } = await write('POST', '/targets', {
            access,
            calendar: values.calendar,
            name: values.name === '' ? (chosen?.name ?? '') : values.name,
            editionId: edition.id,
            ...whatOf(values, edition.isStandard),
          })
          await navigate(`/elsewhere/${id}`)
        })
      }}
    >
      <h2 id="which">{t('whichCalendar')}</h2>
      <fieldset aria-labelledby="which">
        {found.map((one) => (
          <label key={one.address} className="source-choice">
            <input type="radio" disabled={!one.isWritable || one.isTaken} {...choice('calendar', one.address)} />{' '}
            <span>
              {one.name} {!one.isWritable && <span className="soft">{t('onlyReads')}</span>}
              {one.isTaken && <span className="soft">{t('isWrittenAlready')}</span>}
            </span>
          </label>
        ))}
      </fieldset>
      <Field id="name" label={t('nameHere')} problem={problem} placeholder={chosen?.name} {...text('name')} />
      <WhatIsWritten fields={fields} calendarId={edition.calendarId} problem={problem} />
      <button type="submit" className="btn btn-spruce" disabled={isBusy || values.calendar === ''}>
        {t('writeIt')}
      </button>
      <WhatWasRefused problem={problem} fields={['name', 'from', 'until']} />
    </form>
  )
}
