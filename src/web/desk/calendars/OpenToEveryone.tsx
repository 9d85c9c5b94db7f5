import Modal from 'react-bootstrap/Modal'

interface OpenToEveryoneProps {
  name: string
  events: number
  onOpen: () => void
  onLeave: () => void
}

/** Asks once more, in plain words, with what becomes visible. */
export function OpenToEveryone({ name, events, onOpen, onLeave }: OpenToEveryoneProps) {
  const becomes = events === 1 ? '1 event becomes public.' : `${events} events become public.`
  return (
    <Modal show onHide={onLeave} aria-labelledby="open-title">
      <Modal.Body>
        <h2 id="open-title">Open {name || 'this calendar'} to everyone?</h2>
        <p>
          <b>{events === 0 ? 'It has no events yet; those to come will be public.' : becomes}</b>
        </p>
        <p>
          The whole world may then read titles, times, places and descriptions: on its page, in embeds and in feeds. You can close
          it again; what others copied meanwhile stays with them.
        </p>
        <button type="button" className="btn btn-spruce" autoFocus onClick={onOpen}>
          Open to everyone
        </button>{' '}
        <button type="button" className="btn btn-quiet" onClick={onLeave}>
          Leave it closed
        </button>
      </Modal.Body>
    </Modal>
  )
}
