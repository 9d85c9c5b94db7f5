import { Link } from 'react-router'
import type { Calendar } from '../api'
import { sayAgo } from '../Delivery'
import { detailWords } from '../openness'
import { useSecretLink } from '../queries'
import { SecretActs, type SecretWords } from '../SecretActs'
import { Copyable } from './Copyable'

const words: SecretWords = {
  name: 'link',
  make: 'Make a secret link',
  made: 'There is a secret link now. Copy it and send it on.',
  ifReplaced:
    'The old address stops working at once, and says that it was replaced. Everyone who should go on seeing it needs the new one.',
  replaced: 'There is a new secret link. The old one has ended.',
  ifWithdrawn:
    'The address stops working at once, and says that it was withdrawn. It cannot be brought back; a new one can be made.',
  withdrawn: 'The secret link is withdrawn.',
}

/** The secret address of a calendar: made, copied, replaced and withdrawn. */
export function SecretLinkSection({ calendar }: { calendar: Calendar }) {
  const link = useSecretLink(calendar.id)
  if (!link.data) return null
  const { page, feed, madeAt, showsNothing } = link.data
  return (
    <section>
      <h2>For those who have the secret link</h2>
      <p className="soft">
        Whoever has this address sees what {calendar.name} shows people with the link:{' '}
        {detailWords[calendar.disclosure.link].toLowerCase()}. It cannot be guessed, and search engines are told to leave it out.
      </p>
      {showsNothing && (
        <p className="notice">
          {calendar.name} shows people with the link nothing, so the address leads nowhere yet.{' '}
          {calendar.mayManage ? <Link to="/calendars">Show them something</Link> : 'An administrator can show them something.'}
        </p>
      )}
      {page && feed && madeAt && (
        <>
          <Copyable name="Secret page link" button="Copy the secret link" text={page}>
            Made {sayAgo(madeAt)}. Send it only to those who should see it.
          </Copyable>
          <Copyable name="Secret feed link" button="Copy the secret feed" text={feed}>
            The same for calendar programs.
          </Copyable>
        </>
      )}
      <SecretActs path={`/calendars/${calendar.id}/link`} isThere={page !== null} words={words} />
    </section>
  )
}
