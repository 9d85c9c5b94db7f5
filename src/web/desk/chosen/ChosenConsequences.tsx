import { useState } from 'react'
import { Plate } from '../../shared/Plate'
import type { Calendar, ChosenAct, ChosenPreview } from '../types'
import { listed } from '../catalogue'
import { t } from './words'

const AT_FIRST = 6

interface ChosenConsequencesProps {
  preview: ChosenPreview
  act: ChosenAct
  calendars: Calendar[]
  /** It is of what was said before; the next is on its way. */
  isLate: boolean
}

/** What follows for all that is chosen: what needs a look first. */
export function ChosenConsequences({ preview, act, calendars, isLate }: ChosenConsequencesProps) {
  const { foreseen, leftOut, leftOutCount, inBreaks, clashing, asksFor, ofSeries } = preview
  const remarks = [
    ofSeries > 0 && t('allDatesOfSeries', { count: ofSeries }),
    inBreaks > 0 && t('inBreaks', { count: inBreaks }),
    clashing > 0 && t('clashing', { count: clashing }),
    act === 'remove' && foreseen.removed > 0 && t('toTheBin', { count: foreseen.removed }),
    asksFor.length > 0 && t('editorsAreAsked', { calendars: listed(asksFor) }),
    ...foreseen.newlySees,
    ...foreseen.seesLess,
  ].filter((one) => typeof one === 'string')
  return (
    <section className={isLate ? 'chosen-follows is-older' : 'chosen-follows'} aria-label={t('whatFollows')} aria-busy={isLate}>
      {remarks.length > 0 && (
        <ul className="remark chosen-remarks">
          {remarks.map((one) => (
            <li key={one}>{one}</li>
          ))}
        </ul>
      )}
      <Lines preview={preview} calendars={calendars} />
      {leftOutCount > 0 && (
        <div className="chosen-left">
          <b>{t('stayAsTheyAre', { count: leftOutCount })}</b>
          <ul>
            {leftOut.map((one) => (
              <li key={one.eventId}>
                <PlateOf id={one.calendarId} calendars={calendars} /> {one.title}: {one.why}
              </li>
            ))}
          </ul>
        </div>
      )}
    </section>
  )
}

function Lines({ preview: { lines, moreLines }, calendars }: { preview: ChosenPreview; calendars: Calendar[] }) {
  const [isOpen, setOpen] = useState(false)
  if (lines.length === 0) return null
  const shown = isOpen ? lines : lines.slice(0, AT_FIRST)
  const more = lines.length + moreLines - shown.length
  return (
    <>
      <ul className="chosen-lines">
        {shown.map((line, index) => (
          <li key={index}>
            <PlateOf id={line.calendarId} calendars={calendars} /> <b>{line.title}</b>{' '}
            <span>
              {line.becomes === ''
                ? line.was
                : line.was === ''
                  ? line.becomes
                  : t('wasBecomes', { was: line.was, becomes: line.becomes })}
            </span>
            {line.remark !== '' && <em>{line.remark}</em>}
          </li>
        ))}
      </ul>
      {more > 0 && !isOpen && lines.length > AT_FIRST ? (
        <button type="button" className="as-link" onClick={() => setOpen(true)}>
          {t('more', { count: more })}
        </button>
      ) : (
        more > 0 && <span className="soft">{t('andMore', { count: more })}</span>
      )}
    </>
  )
}

function PlateOf({ id, calendars }: { id: string; calendars: Calendar[] }) {
  const calendar = calendars.find((one) => one.id === id)
  return calendar ? <Plate code={calendar.plate} colour={calendar.colour} size="small" /> : null
}
