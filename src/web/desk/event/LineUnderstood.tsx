import { Link } from 'react-router'
import type { LineReading } from '../types'
import { t } from './words'

const fields: Record<string, string> = {
  title: t('title'),
  date: t('day'),
  from: t('time'),
  to: t('end'),
  allDay: t('length'),
  repeat: t('pattern'),
  until: t('until'),
  count: t('ends'),
  place: t('where'),
  tags: t('tag'),
  calendarId: t('calendar'),
}

/** What was understood of a line of text, and what was not. Nothing is guessed in silence. */
export function LineUnderstood({ line }: { line: LineReading }) {
  return (
    <section className="understood" aria-label={t('whatWasUnderstood')}>
      <dl>
        {line.understood.map((one, index) => (
          <div key={index} className={one.words === '' ? 'is-assumed' : undefined}>
            <dt>{fields[one.field] ?? one.field}</dt>
            <dd>
              {one.words !== '' && one.words !== one.means && <q>{one.words}</q>} {one.means}
            </dd>
          </div>
        ))}
      </dl>
      {line.unread.length > 0 && (
        <p className="remark" role="alert">
          {t.rich('notUnderstood', { unread: line.unread.map((word) => `“${word}”`).join(', ') }, <Link to="/help" />)}
        </p>
      )}
    </section>
  )
}
