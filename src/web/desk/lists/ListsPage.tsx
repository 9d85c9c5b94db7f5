import { useState } from 'react'
import { call, Problem, type Lists } from '../api'
import { Refusal } from '../event/DayField'
import { useColours, useLists, useRefresh } from '../queries'
import { useToast } from '../Toasts'

/** The organisation's categories, and the places it knows. */
export function ListsPage() {
  const lists = useLists()
  if (lists.error)
    return (
      <main className="page">
        <p className="notice" role="alert">
          {lists.error.message}
        </p>
      </main>
    )
  if (!lists.data) return <p className="page">Opening …</p>
  return (
    <main className="page lists">
      <h1>Categories and places</h1>
      <div className="two-columns">
        <Categories lists={lists.data} />
        <Places lists={lists.data} />
      </div>
    </main>
  )
}

/** Adding to a list and taking off it, with what went wrong. */
function useListActs() {
  const refresh = useRefresh()
  const toast = useToast()
  const [problem, setProblem] = useState<Problem | null>(null)
  const act = async (method: 'POST' | 'DELETE', path: string, body?: unknown) => {
    setProblem(null)
    try {
      await call(method, path, body)
      await refresh.everything()
      return true
    } catch (failed) {
      const known = failed instanceof Problem ? failed : new Problem(0, '', String(failed))
      setProblem(known)
      if (!known.on('name')) toast(known.message)
      return false
    }
  }
  return { problem, act }
}

function Categories({ lists }: { lists: Lists }) {
  const colours = useColours().data ?? []
  const { problem, act } = useListActs()
  const [name, setName] = useState('')
  const [colour, setColour] = useState('harbour')
  const add = async (event: React.FormEvent) => {
    event.preventDefault()
    if (await act('POST', '/lists/categories', { name, colour })) setName('')
  }
  return (
    <section>
      <h2>Categories</h2>
      <p className="soft">What kind of event it is. Readers see it, and the plan can be narrowed by it.</p>
      {lists.categories.length === 0 && <p className="empty">There is none yet.</p>}
      <ul className="plain-list">
        {lists.categories.map((category) => (
          <li key={category.id}>
            <span className={`category-mark hue-${category.colour}`} aria-hidden="true" /> {category.name}
            {lists.mayEdit && (
              <button type="button" className="btn btn-quiet" onClick={() => act('DELETE', `/lists/categories/${category.id}`)}>
                Take off<span className="visually-hidden"> {category.name}</span>
              </button>
            )}
          </li>
        ))}
      </ul>
      {lists.mayEdit && (
        <form className="when-line" onSubmit={add}>
          <input
            className="form-control"
            aria-label="New category"
            placeholder="Assessment"
            value={name}
            aria-invalid={problem?.on('name') !== undefined}
            onChange={(event) => setName(event.target.value)}
          />
          <select className="form-select" aria-label="Colour" value={colour} onChange={(event) => setColour(event.target.value)}>
            {colours.map((one) => (
              <option key={one.name} value={one.name}>
                {one.name}
              </option>
            ))}
          </select>
          <button type="submit" className="btn btn-spruce">
            Add category
          </button>
          <Refusal text={problem?.on('name')} />
        </form>
      )}
    </section>
  )
}

function Places({ lists }: { lists: Lists }) {
  const { problem, act } = useListActs()
  const [name, setName] = useState('')
  const add = async (event: React.FormEvent) => {
    event.preventDefault()
    if (await act('POST', '/lists/places', { name })) setName('')
  }
  return (
    <section>
      <h2>Places</h2>
      <p className="soft">
        Rooms and fields that can be taken twice: two events at one of them at the same time are shown as a clash.
      </p>
      {lists.places.length === 0 && <p className="empty">There is none yet.</p>}
      <ul className="plain-list">
        {lists.places.map((place) => (
          <li key={place.id}>
            {place.name}
            {lists.mayEdit && (
              <button type="button" className="btn btn-quiet" onClick={() => act('DELETE', `/lists/places/${place.id}`)}>
                Take off<span className="visually-hidden"> {place.name}</span>
              </button>
            )}
          </li>
        ))}
      </ul>
      {lists.mayEdit && (
        <form className="when-line" onSubmit={add}>
          <input
            className="form-control"
            aria-label="New place"
            placeholder="Slipway"
            value={name}
            aria-invalid={problem?.on('name') !== undefined}
            onChange={(event) => setName(event.target.value)}
          />
          <button type="submit" className="btn btn-spruce">
            Add place
          </button>
          <Refusal text={problem?.on('name')} />
        </form>
      )}
    </section>
  )
}
