import Modal from 'react-bootstrap/Modal'
import { t } from './words'

const keys: [string, string][] = [
  ['n', t('newEvent')],
  ['/', t('searchEverything')],
  [t('brackets'), t('backAndForwardInTime')],
  ['.', t('today')],
  [t('oneToFive'), t('lanesMonthWeekDayList')],
  [t('arrows'), t('fromDayToDayIn')],
  [t('enter'), t('openWhatIsMarkedOr')],
  [t('shiftAndArrows'), t('onASlipMoveIt')],
  [t('altShiftAndArrows'), t('onASlipLonger')],
  [t('spaceBar'), t('chooseASlip')],
  [t('ctrlZ'), t('takeBackTheLast')],
  ['?', t('thisList')],
]

export function KeysHelp({ onHide }: { onHide: () => void }) {
  return (
    <Modal show onHide={onHide} aria-labelledby="keys-title">
      <Modal.Body>
        <h2 id="keys-title">{t('keys')}</h2>
        <KeyList />
        <button type="button" className="btn btn-outline-ink" onClick={onHide}>
          {t('close')}
        </button>
      </Modal.Body>
    </Modal>
  )
}

export function KeyList() {
  return <Explained list={keys} />
}

/** What each thing is, or does. */
export function Explained({ list }: { list: [string, string][] }) {
  return (
    <dl className="keys">
      {list.map(([what, about]) => (
        <div key={what}>
          <dt>{what}</dt>
          <dd>{about}</dd>
        </div>
      ))}
    </dl>
  )
}
