import { Link } from 'react-router'

export function NothingHere({ detail = 'There is no screen at this address.' }: { detail?: string }) {
  return (
    <main className="page">
      <h1>Nothing here</h1>
      <p>{detail}</p>
      <p>
        <Link to="/plan">Back to the plan</Link>
      </p>
    </main>
  )
}
