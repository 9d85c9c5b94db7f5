import { useState } from 'react'
import type { Day } from '../../shared/days'
import { call } from '../api'
import type { BreaksRead } from '../types'
import { t } from './words'

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
      const text = [
        t('countReadFrom', { count: found.breaks.length, name: file.name }),
        found.skipped.length > 0 ? t('countLeftOut', { count: found.skipped.length }) : '',
        t('lookThemOver'),
      ]
      setSaid({ text: text.filter(Boolean).join(' '), isWrong: false })
    } catch (failed) {
      setSaid({ text: failed instanceof Error ? failed.message : String(failed), isWrong: true })
    }
  }
  return (
    <p className="when-line break-import">
      <label className="btn btn-outline-ink">
        {t('readBreaksFromAnIcs')}
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
