import { useState } from 'react'
import { t } from './words'

/** Asked when it is left, so that a word half typed reads nothing anew. */
export function TextQuestion({ value, onChange }: { value: string; onChange: (text: string) => void }) {
  const [text, setText] = useState(value)
  const settle = () => {
    if (text.trim() !== value) onChange(text.trim())
  }
  return (
    <label className="intake-question">
      <span>{t('withTheWord')}</span>
      <input
        className="form-control"
        type="search"
        maxLength={200}
        value={text}
        onChange={(event) => setText(event.target.value)}
        onBlur={settle}
        onKeyDown={(event) => event.key === 'Enter' && settle()}
      />
    </label>
  )
}
