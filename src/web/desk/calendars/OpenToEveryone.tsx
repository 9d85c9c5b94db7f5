import Modal from 'react-bootstrap/Modal'
import { t } from './words'

interface OpenToEveryoneProps {
  name: string
  events: number
  onOpen: () => void
  onLeave: () => void
}

/** Asks once more, in plain words, with what becomes visible. */
export function OpenToEveryone({ name, events, onOpen, onLeave }: OpenToEveryoneProps) {
  const becomes = t('eventsBecomePublic', { count: events })
  return (
    <Modal show onHide={onLeave} aria-labelledby="open-title">
      <Modal.Body>
        <h2 id="open-title">{t('openNameToEveryone', { name: name || t('thisCalendar') })}</h2>
        <p>
          <b>{events === 0 ? t('itHasNoEventsYet') : becomes}</b>
        </p>
        <p>{t('theWholeWorldMayThen')}</p>
        <button type="button" className="btn btn-spruce" autoFocus onClick={onOpen}>
          {t('openToEveryone')}
        </button>{' '}
        <button type="button" className="btn btn-quiet" onClick={onLeave}>
          {t('leaveItClosed')}
        </button>
      </Modal.Body>
    </Modal>
  )
}
