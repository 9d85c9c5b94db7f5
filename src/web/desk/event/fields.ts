import type { Piece } from '../api'

/** What the fields of an event are called, wherever the desk speaks of them: as they are declared, and the parts of what the event is besides. */
const names: Record<string, string> = {
  title: 'Title',
  subtitle: 'Subtitle',
  place: 'Where',
  description: 'About',
  category: 'Category',
  tags: 'Tags',
  links: 'Links',
  files: 'Files',
  contact: 'Contact',
  notes: 'Notes for editors',
  cap: 'Shown to',
  showing: 'Shown from, to',
  calendarId: 'Calendar',
  placements: 'Shown on',
  state: 'State',
  when: 'When',
  zone: 'Time zone',
  repeat: 'Pattern',
  extra: 'Added by hand',
  removed: 'Taken out by hand',
  exception: 'One date',
}

/** What a pattern of an edition can put into a title or a line, in the order in which it is offered. */
export const pieceNames: Record<Piece, string> = {
  time: 'time',
  date: 'date',
  plate: 'plate',
  calendar: 'calendar',
  title: 'title',
  subtitle: 'subtitle',
  place: 'place',
  category: 'category',
}

export function fieldName(field: string): string {
  return names[field] ?? field
}
