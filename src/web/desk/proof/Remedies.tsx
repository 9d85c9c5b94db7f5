import { lazy, Suspense, useState } from 'react'
import { Link } from 'react-router'
import { ChangeLevel } from '../calendars/LevelCell'
import { useCalendars } from '../calendars/queries'
import type { ActName } from '../chosen/ChosenDialog'
import type { Proof, Remedy } from '../types'
import { SettingDialog } from './SettingDialog'
import { t } from './words'

const ChosenDialog = lazy(() => import('../chosen/ChosenDialog').then(({ ChosenDialog: shown }) => ({ default: shown })))

interface RemediesProps {
  remedies: Remedy[]
  /** What is put right, for those who do not see where a button stands. */
  about: string
  proof: Proof
}

/** The ways to put something right: a place to go, or an act whose consequences are shown first. */
export function Remedies({ remedies, about, proof }: RemediesProps) {
  const [taken, setTaken] = useState<Remedy | null>(null)
  const events = remedies.filter((one) => one.way === 'event')
  const leave = () => setTaken(null)
  return (
    <>
      {remedies.map((one, index) => {
        const to = placeOf(one, proof.id)
        const label = (
          <>
            {sayRemedy(one, events)}
            <span className="visually-hidden">: {about}</span>
          </>
        )
        const look = index === 0 ? 'btn btn-outline-ink' : 'as-link'
        return to ? (
          <Link key={index} className={index === 0 ? 'btn btn-outline-ink' : ''} to={to}>
            {label}
          </Link>
        ) : (
          <button key={index} type="button" className={look} onClick={() => setTaken(one)}>
            {label}
          </button>
        )
      })}
      {taken?.way === 'act' && taken.act && taken.eventId && taken.date && (
        <Suspense fallback={null}>
          <ChosenDialog
            act={actNames[taken.act as keyof typeof actNames]}
            dates={[{ eventId: taken.eventId, recurrenceId: taken.date }]}
            onDone={leave}
            onLeave={leave}
          />
        </Suspense>
      )}
      {taken?.way === 'setting' && taken.setting && (
        <SettingDialog
          proof={proof}
          setting={taken.setting}
          calendarId={taken.calendarId}
          title={sayRemedy(taken, events)}
          about={about}
          onLeave={leave}
        />
      )}
      {taken?.way === 'opening' && taken.calendarId && (
        <Opening calendarId={taken.calendarId} audience={proof.audience} onLeave={leave} />
      )}
    </>
  )
}

/** Under which button of many events an act stands. */
const actNames = {
  endWithPlan: 'endWithPlan',
  skipBreaks: 'skipBreaks',
  letOut: 'out',
  remove: 'remove',
} as const satisfies Record<string, ActName>

interface OpeningProps {
  calendarId: string
  audience: Proof['audience']
  onLeave: () => void
}

function Opening({ calendarId, audience, onLeave }: OpeningProps) {
  const calendar = (useCalendars().data ?? []).find((one) => one.id === calendarId)
  return calendar && audience !== 'editors' ? <ChangeLevel calendar={calendar} audience={audience} onClose={onLeave} /> : null
}

function placeOf(remedy: Remedy, editionId: string): string | null {
  switch (remedy.way) {
    case 'event':
      return `/events/${remedy.eventId}?date=${remedy.date}`
    case 'source':
      return `/intake/sources/${remedy.sourceId}`
    case 'signOff':
      return '/sign-off'
    case 'plan':
      return `/plan?view=week&day=${remedy.day}`
    case 'yearPlan':
      return '/year'
    case 'edition':
      return `/editions/${editionId}`
    default:
      return null
  }
}

function sayRemedy(remedy: Remedy, events: Remedy[]): string {
  if (remedy.way === 'act') return t(`remedy_act_${remedy.act as keyof typeof actNames}`)
  if (remedy.way === 'setting' && remedy.setting) return t(`remedy_setting_${remedy.setting}`)
  if (remedy.way === 'event' && events.length > 1) return t(remedy === events[0] ? 'remedy_eventFirst' : 'remedy_eventOther')
  return t(`remedy_${remedy.way as Exclude<Remedy['way'], 'act' | 'setting'>}`)
}
