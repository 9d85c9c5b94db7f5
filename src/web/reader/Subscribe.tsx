import { useState } from 'react'
import { fill } from '../shared/words'
import ar from '../../words/ar/subscribe.json'
import de from '../../words/de/subscribe.json'
import en from '../../words/en/subscribe.json'
import fr from '../../words/fr/subscribe.json'
import { aboutOf } from './address'
import { slugsOf } from './edition'
import { usePage } from './page'

/** They come with this panel, and not with every page. */
const languages: Record<string, typeof en> = { ar, de, en, fr }

/** How to get the dates into one's own program: all of them, or of the calendars that concern the reader. */
export function Subscribe({ only, about, onClose }: { only: string[] | null; about: string[]; onClose: () => void }) {
  const { addresses, edition, speech } = usePage()
  const { words } = speech
  const own = languages[speech.language] ?? en
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
        {own.subscribeWhy} {only && <b>{own.subscribeSome}</b>}{' '}
        {about.length > 0 && <b>{fill(own.subscribeAbout, { about: about.join(', ') }, speech.locale)}</b>}
      </p>
      <p>
        <a className="button" href={addresses.webcal + rest} target="_blank" rel="noopener">
          {own.openInProgram}
        </a>
      </p>
      <ul className="ways-in">
        <li>{own.subscribeComputer}</li>
        <li>{own.subscribePhone}</li>
        <li>{own.subscribeAddress}</li>
      </ul>
      <p className="soft">{own.subscribeFresh}</p>
      <label>
        {own.feedAddress}
        <input readOnly value={feed} dir="ltr" onFocus={(event) => event.target.select()} />
      </label>
      <p>
        <button type="button" className="plain" onClick={copy}>
          {own.copyFeed}
        </button>{' '}
        <button type="button" className="plain" onClick={onClose}>
          {words.close}
        </button>{' '}
        <span role="status">{said}</span>
      </p>
      {addresses.page && (
        <p>
          <a
            href={`${addresses.page}/mail${only ? `?only=${slugsOf(edition, only).join(',')}` : ''}`}
            target="_blank"
            rel="noopener"
          >
            {own.byMail}
          </a>
        </p>
      )}
      {addresses.page && <Take page={addresses.page} narrowing={narrowing} own={own} />}
    </section>
  )
}

/** Dates of a span as a file. */
function Take({ page, narrowing, own }: { page: string; narrowing: string; own: typeof en }) {
  const [from, setFrom] = useState('')
  const [to, setTo] = useState('')
  const query = [from && `from=${from}`, to && `to=${to}`, narrowing].filter(Boolean).join('&')
  const rest = query && `?${query}`
  return (
    <div className="take-along">
      <p>{own.takeAlong}</p>
      <p>
        <label>
          {own.takeFrom}{' '}
          <input type="date" value={from} max={to || undefined} onChange={(event) => setFrom(event.target.value)} />
        </label>{' '}
        <label>
          {own.takeTo} <input type="date" value={to} min={from || undefined} onChange={(event) => setTo(event.target.value)} />
        </label>
      </p>
      <p>
        <a href={`${page}/snapshot.ics${rest}`} target="_blank" rel="noopener">
          {own.takeFile}
        </a>{' '}
        ·{' '}
        <a href={`${page}.csv${rest}`} target="_blank" rel="noopener">
          {own.takeTable}
        </a>
      </p>
    </div>
  )
}
