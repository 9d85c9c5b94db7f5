import { useId } from 'react'
import { useCopy } from '../useCopy'

interface CopyableProps {
  name: string
  button: string
  text: string
  lines?: number
  children?: React.ReactNode
}

/** Something to be pasted elsewhere, with a button that copies it. */
export function Copyable({ name, button, text, lines = 1, children }: CopyableProps) {
  const id = useId()
  const copy = useCopy()
  return (
    <div className="copyable">
      <label htmlFor={id}>{name}</label>
      <button type="button" className="btn btn-outline-ink" onClick={() => copy(name, text)}>
        {button}
      </button>
      {lines > 1 ? (
        <textarea id={id} readOnly rows={lines} value={text} spellCheck={false} onFocus={(event) => event.target.select()} />
      ) : (
        <input id={id} readOnly value={text} onFocus={(event) => event.target.select()} />
      )}
      {children && <p className="soft">{children}</p>}
    </div>
  )
}
