import { useState } from 'react'
import Overlay from 'react-bootstrap/Overlay'
import type { Calendar, Detail, Disclosure, Opening } from '../types'
import { Level } from '../Level'
import { audiences, detailSaid, detailWords, tableWith } from '../openness'
import { useOpening } from './queries'
import { useWrite } from '../useWrite'
import { useToast } from '../Toasts'
import { usePost } from '../usePost'
import { WhatFollows } from './WhatFollows'
import { listed } from '../catalogue'
import { t } from './words'

export type Wide = Exclude<(typeof audiences)[number]['key'], 'editors'>

const toWhom: Record<Wide, string> = { members: t('members'), link: t('thoseWithTheLink'), everyone: t('everyone') }
const levels: Detail[] = ['nothing', 'times', 'headline', 'complete']

/** How much an audience sees of a calendar, and the place where that is changed. */
export function LevelCell({ calendar, audience, label }: { calendar: Calendar; audience: Wide; label: string }) {
  const [isOpen, setOpen] = useState(false)
  const [button, setButton] = useState<HTMLButtonElement | null>(null)
  const detail = calendar.disclosure[audience]
  const close = () => {
    setOpen(false)
    button?.focus()
  }
  if (!calendar.mayManage)
    return (
      <td data-label={label}>
        <Level detail={detail} />
      </td>
    )
  return (
    <td className={isOpen ? 'level-cell is-open' : 'level-cell'} data-label={label}>
      <button
        ref={setButton}
        type="button"
        aria-haspopup="dialog"
        aria-expanded={isOpen}
        aria-label={t('nameToWhomDetailChangeIt', {
          name: calendar.name,
          toWhom: toWhom[audience],
          detail: detailSaid[detail],
        })}
        onClick={() => setOpen(!isOpen)}
      >
        <Level detail={detail} />
      </button>
      <Overlay target={button} show={isOpen} placement="bottom-end" rootClose onHide={() => setOpen(false)} transition={false}>
        {({ ref, style }) => (
          <div ref={ref} style={style} className="cell-popup">
            <ChangeLevel calendar={calendar} audience={audience} onClose={close} />
          </div>
        )}
      </Overlay>
    </td>
  )
}

interface ChangeLevelProps {
  calendar: Calendar
  audience: Wide
  onClose: () => void
}

/** How much an audience sees, with what follows from another level before it is chosen. */
export function ChangeLevel({ calendar, audience, onClose }: ChangeLevelProps) {
  const was = calendar.disclosure[audience]
  const [detail, setDetail] = useState<Detail>(was)
  const table = tableWith(calendar.disclosure, audience, detail)
  const opening = useOpening(calendar.id, detail === was ? null : table, calendar.version)
  const { problem, isBusy, post } = usePost()
  const write = useWrite()
  const toast = useToast()
  const isWider = levels.indexOf(detail) > levels.indexOf(was)
  const id = `change-${calendar.id}-${audience}`

  const put = (disclosure: Disclosure, version: number) =>
    write('PUT', `/calendars/${calendar.id}/disclosure`, { disclosure, version })
  const save = () =>
    post(async () => {
      const saved = await put(table, calendar.version)
      toast(t('nameShowsToWhomSaid', { name: calendar.name, toWhom: toWhom[audience], said: said[detail] }), () =>
        undo(saved.version),
      )
      onClose()
    })
  const undo = async (version: number) => {
    await put(calendar.disclosure, version)
    toast(t('nameIsShownAsBefore', { name: calendar.name }))
  }
  return (
    <section role="dialog" aria-labelledby={id} onKeyDown={(event) => event.key === 'Escape' && onClose()}>
      <h2 id={id}>{titleOf(calendar.name, audience, isWider || detail === was ? 'wider' : 'narrower')}</h2>
      <div className="joined levels-choice" role="group" aria-label={t('whatToWhomSee', { toWhom: toWhom[audience] })}>
        {levels.map((level) => (
          <button
            key={level}
            type="button"
            autoFocus={level === was}
            aria-pressed={level === detail}
            onClick={() => setDetail(level)}
          >
            {detailWords[level]}
          </button>
        ))}
      </div>
      <p className="soft">{about[detail]}</p>
      {detail !== was && (
        <>
          <Along calendar={calendar} audience={audience} table={table} />
          {opening.error && <p className="refusal">{opening.error.message}</p>}
          {opening.data && <WhatFollows openings={opening.data as Opening[]} />}
          {problem && (
            <p className="refusal" role="alert">
              {problem.message}
            </p>
          )}
          <p className="popup-acts">
            <button
              type="button"
              className={`btn ${isWider ? 'btn-spruce' : 'btn-outline-ink'}`}
              disabled={isBusy || !opening.data}
              onClick={save}
            >
              {isWider
                ? t('openToToWhom', { toWhom: toWhom[audience] })
                : detail === 'nothing'
                  ? t('closeForToWhom', { toWhom: toWhom[audience] })
                  : t('showToWhomLess', { toWhom: toWhom[audience] })}
            </button>{' '}
            <button type="button" className="btn btn-quiet" onClick={onClose}>
              {t('leaveItAsItIs')}
            </button>
          </p>
        </>
      )}
    </section>
  )
}

const said: Record<Detail, string> = {
  nothing: t('nothingAnyMore'),
  times: t('onlyWhenItIsBusy'),
  headline: t('titlesTimesAndPlaces'),
  complete: t('allOfIt'),
}

const about: Record<Detail, string> = {
  nothing: t('theyDoNotKnowThat'),
  times: t('startAndEndCalledBusy'),
  headline: t('titleTimePlaceAndCategory'),
  complete: t('textLinksFilesAndContact'),
}

function titleOf(name: string, audience: Wide, direction: 'wider' | 'narrower'): string {
  return direction === 'wider'
    ? t('openNameToToWhom', { name, toWhom: toWhom[audience] })
    : t('showToWhomLessOfName', { toWhom: toWhom[audience], name })
}

/** Other audiences whose level has to go along, so that the table stays one. */
function Along({ calendar, audience, table }: { calendar: Calendar; audience: Wide; table: Disclosure }) {
  const along = (['members', 'link', 'everyone'] as const).filter(
    (one) => one !== audience && table[one] !== calendar.disclosure[one],
  )
  if (along.length === 0) return null
  return (
    <p className="remark">
      {t('alongToo', {
        along: listed(along.map((one) => toWhom[one])),
        detail: detailSaid[table[along[0] as Wide]],
      })}
    </p>
  )
}
