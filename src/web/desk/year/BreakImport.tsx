import { useState } from 'react'
import type { Day } from '../../shared/days'
import { call, type BreaksRead } from '../api'

interface BreakImportProps {
  first: Day
  last: Day
  onRead: (breaks: BreaksRead['breaks']) => void
}

/** Breaks from somebody's iCalendar file, such as a ministry's list of holidays. */
export function BreakImport({ first, last, onRead }: BreakImportProps) {
  const [said, setSaid] = useState<{ text: string; isWrong: boolean } | null>(null)
  const read = async (file: File | undefined) => {
    if (!file) return
    try {
      const found = await call('POST', '/year-plans/breaks', { text: await file.text(), first, last })
      onRead(found.breaks)
      const left = found.skipped.length > 0 ? ` ${found.skipped.length} left out (outside the year, or with times of day).` : ''
      setSaid({ text: `${found.breaks.length} read from ${file.name}.${left} Look them over, then save.`, isWrong: false })
    } catch (failed) {
      setSaid({ text: failed instanceof Error ? failed.message : String(failed), isWrong: true })
    }
  }
  return (
    <p className="when-line break-import">
      <label className="btn btn-outline-ink">
        Read breaks from an .ics file
        <input
          type="file"
          accept=".ics,text/calendar"
          className="visually-hidden"
          onChange={(event) => {
            void read(event.target.files?.[0])
            event.target.value = ''
          }}
        />
      </label>
      <span role="status" className={said?.isWrong ? 'refusal' : 'soft'}>
        {said?.text}
      </span>
    </p>
  )
}
