import { useState } from 'react'
import Modal from 'react-bootstrap/Modal'
import { Plate } from '../../shared/Plate'
import { CalendarFinder } from '../calendars/CalendarFinder'
import type { Calendar } from '../types'
import { t } from './words'

interface LanesDialogProps {
  calendars: Calendar[]
  /** Plates. */
  chosen: string[]
  onChoose: (plates: string[]) => void
  onHide: () => void
}

/** Any calendars, to be looked at together. */
export function LanesDialog({ calendars, chosen, onChoose, onHide }: LanesDialogProps) {
  const [plates, setPlates] = useState(chosen)
  const toggle = (plate: string) => setPlates(plates.includes(plate) ? plates.filter((one) => one !== plate) : [...plates, plate])
  return (
    <Modal show onHide={onHide} aria-labelledby="lanes-title">
      <Modal.Body className="views">
        <h2 id="lanes-title">{t('whichCalendars')}</h2>
        <div className="lanes-choice">
          <CalendarFinder
            calendars={calendars}
            chosen={calendars.filter((one) => plates.includes(one.plate)).map(({ id }) => id)}
          >
            {(calendar) => (
              <label className="tick">
                <input type="checkbox" checked={plates.includes(calendar.plate)} onChange={() => toggle(calendar.plate)} />{' '}
                <Plate code={calendar.plate} colour={calendar.colour} size="small" /> {calendar.name}
              </label>
            )}
          </CalendarFinder>
        </div>
        <p className="popup-acts">
          <button type="button" className="btn btn-spruce" onClick={() => onChoose(plates)}>
            {plates.length === 0 ? t('showAllCalendars') : t('showCalendars', { count: plates.length })}
          </button>{' '}
          <button type="button" className="btn btn-quiet" onClick={onHide}>
            {t('close')}
          </button>
        </p>
      </Modal.Body>
    </Modal>
  )
}
