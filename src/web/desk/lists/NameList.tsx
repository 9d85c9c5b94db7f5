import { useState, type FormEvent, type ReactNode } from 'react'
import { call, Problem } from '../api'
import { Refusal } from '../event/DayField'
import { useRefresh } from '../queries'
import { useToast } from '../Toasts'

interface NameListProps<Entry> {
  /** What one entry is called: “category”. */
  what: string
  title: string
  about: string
  /** Where the API keeps them: “/lists/categories”. */
  path: string
  entries: Entry[]
  mayEdit: boolean
  example: string
  mark?: (entry: Entry) => ReactNode
  /** What is known of an entry besides its name. */
  after?: (entry: Entry) => ReactNode
  /** What is sent besides the name, and the fields for it. */
  more?: Record<string, string>
  /** The field among them that can be refused. */
  moreField?: string
  onAdded?: () => void
  children?: ReactNode
}

/** A list of names: adding one, taking one off, and what was wrong with it. */
export function NameList<Entry extends { id: string; name: string }>(props: NameListProps<Entry>) {
  const { what, path, entries, mayEdit } = props
  const { problem, act } = useListActs()
  const [name, setName] = useState('')
  const add = async (event: FormEvent) => {
    event.preventDefault()
    if (!(await act('POST', path, { name, ...props.more }))) return
    setName('')
    props.onAdded?.()
  }
  return (
    <section>
      <h2>{props.title}</h2>
      <p className="soft">{props.about}</p>
      {entries.length === 0 && <p className="empty">There is none yet.</p>}
      <ul className="plain-list">
        {entries.map((entry) => (
          <li key={entry.id}>
            {props.mark?.(entry)} {entry.name}
            {props.after?.(entry)}
            {mayEdit && (
              <button type="button" className="btn btn-quiet" onClick={() => act('DELETE', `${path}/${entry.id}`)}>
                Take off<span className="visually-hidden"> {entry.name}</span>
              </button>
            )}
          </li>
        ))}
      </ul>
      {mayEdit && (
        <form className="when-line" onSubmit={add}>
          <input
            className="form-control"
            aria-label={`New ${what}`}
            placeholder={props.example}
            value={name}
            aria-invalid={problem?.on('name') !== undefined}
            onChange={(event) => setName(event.target.value)}
          />
          {props.children}
          <button type="submit" className="btn btn-spruce">
            Add {what}
          </button>
          <Refusal text={problem?.on('name') ?? (props.moreField ? problem?.on(props.moreField) : undefined)} />
        </form>
      )}
    </section>
  )
}

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
      if (Object.keys(known.errors).length === 0) toast(known.message)
      return false
    }
  }
  return { problem, act }
}
