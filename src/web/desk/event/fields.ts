import type { Piece } from '../types'
import { t } from './words'

/** What the fields of an event are called, wherever the desk speaks of them: as they are declared, and the parts of what the event is besides. */
const names: Record<string, string> = {
  title: t('title'),
  subtitle: t('subtitle'),
  kind: t('eventOrDeadline'),
  certainty: t('certainty'),
  transparency: t('transparency'),
  place: t('where'),
  description: t('about'),
  category: t('category'),
  tags: t('tags'),
  links: t('links'),
  files: t('files'),
  picture: t('whatThePictureShows'),
  contact: t('contact'),
  people: t('people'),
  staffSpan: t('staffSpan'),
  reminder: t('reminder'),
  notes: t('notesForEditors'),
  cap: t('shownTo'),
  showing: t('shownFromTo'),
  calendarId: t('calendar'),
  placements: t('shownOn'),
  state: t('state'),
  when: t('when'),
  zone: t('timeZone'),
  repeat: t('pattern'),
  extra: t('addedByHand'),
  removed: t('takenOutByHand'),
  exception: t('oneDate'),
}

/** What a pattern of an edition can put into a title or a line, in the order in which it is offered. */
export const pieceNames: Record<Piece, string> = {
  time: t('pieceTime'),
  date: t('pieceDate'),
  plate: t('piecePlate'),
  calendar: t('pieceCalendar'),
  title: t('pieceTitle'),
  subtitle: t('pieceSubtitle'),
  place: t('piecePlace'),
  category: t('pieceCategory'),
  people: t('piecePeople'),
}

export function fieldName(field: string): string {
  return names[field] ?? field
}
