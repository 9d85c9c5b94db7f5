import Modal from 'react-bootstrap/Modal'

const keys: [string, string][] = [
  ['n', 'New event'],
  ['[ and ]', 'Back and forward in time'],
  ['.', 'Today'],
  ['1 to 5', 'Lanes, month, week, day, list'],
  ['Arrows', 'From day to day in the lanes and the month'],
  ['Enter', 'Open what is marked, or start an event on that day'],
  ['Shift and arrows', 'On a slip: move it by a day, a week, or a quarter of an hour'],
  ['?', 'This list'],
]

export function KeysHelp({ onHide }: { onHide: () => void }) {
  return (
    <Modal show onHide={onHide} aria-labelledby="keys-title">
      <Modal.Body>
        <h2 id="keys-title">Keys</h2>
        <KeyList />
        <button type="button" className="btn btn-outline-ink" onClick={onHide}>
          Close
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
