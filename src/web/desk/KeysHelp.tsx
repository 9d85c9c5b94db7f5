import Modal from 'react-bootstrap/Modal'

const keys: [string, string][] = [
  ['n', 'New event'],
  ['[ and ]', 'Back and forward in time'],
  ['.', 'Today'],
  ['1, 2, 3', 'Lanes, month, list'],
  ['Arrows', 'From day to day in the lanes and the month'],
  ['Enter', 'Open what is marked, or start an event on that day'],
  ['?', 'This list'],
]

export function KeysHelp({ show, onHide }: { show: boolean; onHide: () => void }) {
  return (
    <Modal show={show} onHide={onHide} aria-labelledby="keys-title">
      <Modal.Body>
        <h2 id="keys-title">Keys</h2>
        <dl className="keys">
          {keys.map(([key, does]) => (
            <div key={key}>
              <dt>{key}</dt>
              <dd>{does}</dd>
            </div>
          ))}
        </dl>
        <button type="button" className="btn btn-outline-ink" onClick={onHide}>
          Close
        </button>
      </Modal.Body>
    </Modal>
  )
}
