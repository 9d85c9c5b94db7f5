import { Link, useParams } from 'react-router'
import { apiAddress } from '../api'
import { Copyable } from '../calendars/Copyable'
import { NothingHere } from '../NothingHere'
import { useEditionLink, useEditions } from '../queries'
import { SecretActs, type SecretWords } from '../SecretActs'
import { useSeenAs } from '../seeAs'

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

const words: SecretWords = {
  name: 'address',
  make: 'Make my own address',
  made: 'You have an address of your own now.',
  ifReplaced: 'The old address stops working at once. Programs that have it need the new one.',
  replaced: 'Your address was replaced. The old one answers no more.',
  ifWithdrawn: 'The address stops working at once. It cannot be brought back; a new one can be made.',
  withdrawn: 'Your address was withdrawn.',
}

function OwnAddress({ id }: { id: string }) {
  const link = useEditionLink(id)
  return (
    <section className="own-address">
      <h2>In your own calendar program</h2>
      <p className="soft">
        An address that is yours alone: whoever has it reads what you read here. It ends when you leave, and you can replace it at
        any time.
      </p>
      {link.data?.feed && (
        <Copyable name="Your feed link" button="Copy your feed link" text={link.data.feed}>
          Give it to your own program, and to nobody else.
        </Copyable>
      )}
      {link.data && <SecretActs path={`/editions/${id}/link`} isThere={link.data.feed !== null} words={words} />}
    </section>
  )
}
