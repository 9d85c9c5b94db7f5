import { useState } from 'react'
import { Link } from 'react-router'
import { call, type Calendar } from '../api'
import { sayAgo } from '../Delivery'
import { detailWords } from '../openness'
import { useRefresh, useSecretLink } from '../queries'
import { useToast } from '../Toasts'
import { usePost } from '../usePost'
import { Copyable } from './Copyable'

/** The secret address of a calendar: made, copied, replaced and withdrawn. */
export function SecretLinkSection({ calendar }: { calendar: Calendar }) {
  const link = useSecretLink(calendar.id)
  const [asking, setAsking] = useState<'replace' | 'withdraw' | null>(null)
  const { problem, isBusy, post } = usePost()
  const refresh = useRefresh()
  const toast = useToast()
  const run = (method: 'POST' | 'DELETE', said: string) =>
    post(async () => {
      await call(method, `/calendars/${calendar.id}/link`)
      await refresh.everything()
      setAsking(null)
      toast(said)
    })
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
      {page && feed && madeAt ? (
        <>
          <Copyable name="Secret page link" button="Copy the secret link" text={page}>
            Made {sayAgo(madeAt)}. Send it only to those who should see it.
          </Copyable>
          <Copyable name="Secret feed link" button="Copy the secret feed" text={feed}>
            The same for calendar programs.
          </Copyable>
          {asking === null ? (
            <p>
              <button type="button" className="btn btn-outline-ink" onClick={() => setAsking('replace')}>
                Replace it …
              </button>{' '}
              <button type="button" className="btn btn-brick" onClick={() => setAsking('withdraw')}>
                Withdraw it …
              </button>
            </p>
          ) : (
            <div className="asking" role="alert">
              <p>
                {asking === 'replace'
                  ? 'The old address stops working at once, and says that it was replaced. Everyone who should go on seeing it needs the new one.'
                  : 'The address stops working at once, and says that it was withdrawn. It cannot be brought back; a new one can be made.'}
              </p>
              <button
                type="button"
                className={asking === 'replace' ? 'btn btn-spruce' : 'btn btn-brick'}
                disabled={isBusy}
                onClick={() =>
                  asking === 'replace'
                    ? run('POST', 'There is a new secret link. The old one has ended.')
                    : run('DELETE', 'The secret link is withdrawn.')
                }
              >
                {asking === 'replace' ? 'Replace the link' : 'Withdraw the link'}
              </button>{' '}
              <button type="button" className="btn btn-quiet" onClick={() => setAsking(null)}>
                Leave it
              </button>
            </div>
          )}
        </>
      ) : (
        <button
          type="button"
          className="btn btn-outline-ink"
          disabled={isBusy}
          onClick={() => run('POST', 'There is a secret link now. Copy it and send it on.')}
        >
          Make a secret link
        </button>
      )}
      {problem && <p className="refusal">{problem.message}</p>}
    </section>
  )
}
