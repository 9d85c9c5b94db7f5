import type { Revision } from '../api'

const fields: Record<string, string> = {
  title: 'Title',
  place: 'Where',
  description: 'About',
  categoryId: 'Category',
  tags: 'Tags',
  calendarId: 'Calendar',
  state: 'State',
  when: 'When',
  repeat: 'Pattern',
  extra: 'Added by hand',
  removed: 'Taken out by hand',
  exception: 'One date',
  zone: 'Time zone',
  placements: 'Shown on',
  links: 'Links',
  files: 'Files',
  contact: 'Contact',
  notes: 'Notes',
  cap: 'Shown to',
  showing: 'Shown from, to',
}

/** What two versions of an event say differently, line by line. */
export function Differences({ differences }: { differences: Revision['differences'] }) {
  if (differences.length === 0) return null
  return (
    <table className="differences">
      <tbody>
        {differences.map((difference, index) => (
          <tr key={index}>
            <th scope="row">{fields[difference.field] ?? difference.field}</th>
            <td>{difference.was || '–'}</td>
            <td aria-label="becomes">→</td>
            <td>{difference.is || '–'}</td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}
