import { Link } from 'react-router'
import type { LineReading } from '../api'

const fields: Record<string, string> = {
  title: 'Title',
  date: 'Day',
  from: 'Time',
  to: 'End',
  allDay: 'Length',
  repeat: 'Pattern',
  until: 'Until',
  count: 'Ends',
  place: 'Where',
  tags: 'Tag',
  calendarId: 'Calendar',
}

/** What was understood of a line of text, and what was not. Nothing is guessed in silence. */
export function LineUnderstood({ line }: { line: LineReading }) {
  return (
    <section className="understood" aria-label="What was understood">
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
          Not understood: {line.unread.map((word) => `“${word}”`).join(', ')}. Put it in by hand, or see{' '}
          <Link to="/help">how to write it</Link>.
        </p>
      )}
    </section>
  )
}
