import { useState } from 'react'
import { Link, useParams } from 'react-router'
import { Plate } from '../../shared/Plate'
import { apiAddress, type Calendar, type Publishing } from '../api'
import { detailWords } from '../openness'
import { SecretLinkSection } from './SecretLinkSection'
import { Copyable } from './Copyable'
import { DeliveryLine } from '../Delivery'
import { NothingHere } from '../NothingHere'
import { useCalendar, usePublishing } from '../queries'

/** Everything needed to put a calendar on somebody's page or into their program. */
export function PublishingPage() {
  const { id = '' } = useParams()
  const calendar = useCalendar(id)
  const publishing = usePublishing(id)
  const problem = calendar.error ?? (publishing.data ? null : publishing.error)
  if (problem) return <NothingHere detail={problem.message} />
  if (!calendar.data || !publishing.data) return <p className="page">Opening …</p>
  return (
    <main className="page">
      <p className="soft crumbs">
        <Link to="/calendars">Calendars</Link> › {calendar.data.name} › Publish
      </p>
      <div className="page-head">
        <h1>
          <Plate code={calendar.data.plate} colour={calendar.data.colour} /> {calendar.data.name}
        </h1>
        <DeliveryLine delivery={publishing.data.delivery} />
      </div>
      {!publishing.data.isOpen && (
        <p className="notice closed-notice" role="status">
          <b>{calendar.data.name} is not open to everyone.</b> Whoever follows these links now is told that there is nothing here.{' '}
          {calendar.data.mayManage ? (
            <Link to="/calendars">Open it in the table of calendars</Link>
          ) : (
            'An administrator can open it.'
          )}
        </p>
      )}
      {calendar.data.isArchived && (
        <p className="notice" role="status">
          {calendar.data.name} is archived: nobody changes its events. What is below goes on as it is.
        </p>
      )}
      <div className="publishing">
        <div className="ways">
          <Ways publishing={publishing.data} />
          <SecretLinkSection calendar={calendar.data} />
        </div>
        <Preview calendar={calendar.data} />
      </div>
    </main>
  )
}

function Ways({ publishing }: { publishing: Publishing }) {
  return (
    <>
      <section>
        <h2>On a website</h2>
        <Copyable name="Snippet that fits its height" button="Copy the snippet" text={publishing.snippetThatFits} lines={4}>
          For an HTML block that lets scripts through. The frame grows and shrinks with what is in it.
        </Copyable>
        <Copyable name="Plain frame of fixed height" button="Copy the plain frame" text={publishing.snippetFixed} lines={3}>
          For sites that strip scripts. Change the height in the text if it does not suit.
        </Copyable>
      </section>
      <section>
        <h2>In calendar programs</h2>
        <div className="with-code">
          <div>
            <Copyable name="Feed link" button="Copy the feed link" text={publishing.feed}>
              For programs that ask for an address to subscribe to.
            </Copyable>
            <Copyable name="Link that opens the program" button="Copy the webcal link" text={publishing.webcal}>
              A link for your page: it opens the reader’s own program.
            </Copyable>
          </div>
          <figure>
            <img
              src={apiAddress(`/calendars/${publishing.calendarId}/feed-code.svg`)}
              alt="QR code of the link that opens the program"
              width="148"
              height="148"
            />
            <figcaption>For posters: a phone’s camera subscribes</figcaption>
          </figure>
        </div>
      </section>
      <section>
        <h2>As a page of its own</h2>
        <Copyable name="Page link" button="Copy the page link" text={publishing.page}>
          For mails, and for learning platforms that take only a link.
        </Copyable>
      </section>
    </>
  )
}

const widths = { Phone: 390, Sidebar: 300, Column: 640 }

type Seen = 'everyone' | 'link' | 'members'
const seenNames: Record<Seen, string> = { everyone: 'Everyone', link: 'With the link', members: 'Members' }

/** The reading page as each audience gets it. */
function Preview({ calendar }: { calendar: Calendar }) {
  const [width, setWidth] = useState<keyof typeof widths>('Phone')
  const [seen, setSeen] = useState<Seen>(calendar.disclosure.everyone === 'nothing' ? 'members' : 'everyone')
  const detail = calendar.disclosure[seen]
  return (
    <section className="preview">
      <div className="page-head">
        <h2>As readers get it</h2>
        <div className="joined" role="group" aria-label="See as">
          {(Object.keys(seenNames) as Seen[]).map((one) => (
            <button key={one} type="button" aria-pressed={seen === one} onClick={() => setSeen(one)}>
              {seenNames[one]}
            </button>
          ))}
        </div>
      </div>
      <div className="page-head">
        <span className="soft">
          {seenNames[seen]}: {detailWords[detail].toLowerCase()}
        </span>
        <span className="stretch" />
        <div className="joined" role="group" aria-label="Width">
          {(Object.keys(widths) as (keyof typeof widths)[]).map((one) => (
            <button key={one} type="button" aria-pressed={width === one} onClick={() => setWidth(one)}>
              {one} {widths[one]}
            </button>
          ))}
        </div>
      </div>
      {detail === 'nothing' ? (
        <p className="empty">{seenNames[seen]}: nothing. They do not know that it exists.</p>
      ) : (
        <div className="preview-scroll" tabIndex={0} role="region" aria-label="Preview">
          <iframe
            key={`${seen} ${calendar.version}`}
            src={apiAddress(`/calendars/${calendar.id}/seen-as/${seen}`)}
            title={`${calendar.name} as readers get it`}
            width={widths[width]}
            height="640"
          />
        </div>
      )}
    </section>
  )
}
