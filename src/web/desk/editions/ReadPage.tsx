import { Link, useParams } from 'react-router'
import { apiAddress, call } from '../api'
import { Copyable } from '../calendars/Copyable'
import { NothingHere } from '../NothingHere'
import { useEditionLink, useEditions, useRefresh } from '../queries'
import { useSeenAs } from '../seeAs'
import { useToast } from '../Toasts'
import { usePost } from '../usePost'

/** An edition for members, read where they are signed in; and each member's own address of it. */
export function ReadPage() {
  const { id = '' } = useParams()
  const editions = useEditions()
  const isOwnView = useSeenAs() === null
  const edition = editions.data?.find((one) => one.id === id)
  if (editions.data && !edition) return <NothingHere />
  if (!edition) return <p className="page">Opening …</p>
  return (
    <main className="page">
      <p className="soft crumbs">
        <Link to="/editions">Editions</Link> › {edition.name}
      </p>
      <h1 className="visually-hidden">{edition.name}</h1>
      <iframe className="reading-frame" src={apiAddress(`/editions/${id}/page`)} title={edition.name} />
      {isOwnView && edition.mayRead && <OwnAddress id={id} />}
    </main>
  )
}

function OwnAddress({ id }: { id: string }) {
  const link = useEditionLink(id)
  const { problem, isBusy, post } = usePost()
  const refresh = useRefresh()
  const toast = useToast()
  const act = (method: 'POST' | 'DELETE', said: string) =>
    post(async () => {
      await call(method, `/editions/${id}/link`)
      await refresh.everything()
      toast(said)
    })
  return (
    <section className="own-address">
      <h2>In your own calendar program</h2>
      <p className="soft">
        An address that is yours alone: whoever has it reads what you read here. It ends when you leave, and you can replace it at
        any time.
      </p>
      {link.data?.feed ? (
        <>
          <Copyable name="Your feed link" button="Copy your feed link" text={link.data.feed}>
            Give it to your own program, and to nobody else.
          </Copyable>
          <p>
            <button
              type="button"
              className="btn btn-outline-ink"
              disabled={isBusy}
              onClick={() => act('POST', 'Your address was replaced. The old one answers no more.')}
            >
              Replace it
            </button>{' '}
            <button
              type="button"
              className="btn btn-brick"
              disabled={isBusy}
              onClick={() => act('DELETE', 'Your address was withdrawn.')}
            >
              Withdraw it
            </button>
          </p>
        </>
      ) : (
        <button
          type="button"
          className="btn btn-outline-ink"
          disabled={isBusy}
          onClick={() => act('POST', 'You have an address of your own now.')}
        >
          Make my own address
        </button>
      )}
      {problem && (
        <p className="refusal" role="alert">
          {problem.message}
        </p>
      )}
    </section>
  )
}
