import { useState } from 'react'
import type { Edition } from './edition'

/** How to get the dates into one's own program. */
export function Subscribe({ edition, onClose }: { edition: Edition; onClose: () => void }) {
  const [said, setSaid] = useState('')
  const copy = () =>
    navigator.clipboard.writeText(edition.feed).then(
      () => setSaid('Copied.'),
      () => setSaid('The browser does not let this page copy. Select the address and copy it.'),
    )
  return (
    <section className="subscribe" aria-label="Subscribe" onKeyDown={(event) => event.key === 'Escape' && onClose()}>
      <p>A subscription keeps the dates in your own calendar program and follows changes.</p>
      <p>
        <a className="button" href={edition.webcal} target="_blank" rel="noopener">
          Open in a calendar program
        </a>
      </p>
      <label>
        Or give your program this address
        <input readOnly value={edition.feed} onFocus={(event) => event.target.select()} />
      </label>
      <p>
        <button type="button" className="plain" onClick={copy}>
          Copy the feed link
        </button>{' '}
        <button type="button" className="plain" onClick={onClose}>
          Close
        </button>{' '}
        <span role="status">{said}</span>
      </p>
    </section>
  )
}
