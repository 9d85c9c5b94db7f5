import { useId } from 'react'
import { useToast } from '../Toasts'
import { t } from './words'

interface CopyableProps {
  name: string
  button: string
  text: string
  lines?: number
  children?: React.ReactNode
}

/** Something to be pasted elsewhere, with a button that copies it. */
export function Copyable({ name, button, text, lines = 1, children }: CopyableProps) {
  const toast = useToast()
  const id = useId()
  const copy = () =>
    navigator.clipboard.writeText(text).then(
      () => toast(t('copiedName', { name })),
      () => toast(t('theBrowserDoesNotLet')),
    )
  return (
    <div className="copyable">
      <label htmlFor={id}>{name}</label>
      <button type="button" className="btn btn-outline-ink" onClick={copy}>
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
