import { useState } from 'react'
import { aboutOf } from './address'
import { slugsOf } from './edition'
import { usePage } from './page'

/** How to get the dates into one's own program: all of them, or of the calendars that concern the reader. */
export function Subscribe({ only, about, onClose }: { only: string[] | null; about: string[]; onClose: () => void }) {
  const { addresses, edition, speech } = usePage()
  const { words } = speech
  const [said, setSaid] = useState('')
  const narrowing = [only ? `only=${slugsOf(edition, only).join(',')}` : '', aboutOf(about)].filter(Boolean).join('&')
  const rest = narrowing && `?${narrowing}`
  const feed = addresses.feed + rest
  const copy = () =>
    navigator.clipboard.writeText(feed).then(
      () => setSaid(words.copied),
      () => setSaid(words.copyFailed),
    )
  return (
    <section className="panel" aria-label={words.subscribe} onKeyDown={(event) => event.key === 'Escape' && onClose()}>
      <p>
        {words.subscribeWhy} {only && <b>{words.subscribeSome}</b>}{' '}
        {about.length > 0 && <b>{speech.fill('subscribeAbout', { about: about.join(', ') })}</b>}
      </p>
      <p>
        <a className="button" href={addresses.webcal + rest} target="_blank" rel="noopener">
          {words.openInProgram}
        </a>
      </p>
      <ul className="ways-in">
        <li>{words.subscribeComputer}</li>
        <li>{words.subscribePhone}</li>
        <li>{words.subscribeAddress}</li>
      </ul>
      <p className="soft">{words.subscribeFresh}</p>
      <label>
        {words.feedAddress}
        <input readOnly value={feed} dir="ltr" onFocus={(event) => event.target.select()} />
      </label>
      <p>
        <button type="button" className="plain" onClick={copy}>
          {words.copyFeed}
        </button>{' '}
        <button type="button" className="plain" onClick={onClose}>
          {words.close}
        </button>{' '}
        <span role="status">{said}</span>
      </p>
    </section>
  )
}
