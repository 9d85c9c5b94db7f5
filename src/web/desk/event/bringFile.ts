import { bring } from '../api'
import type { EventFile, ReplacedFile } from '../types'
import { t } from '../words'

/** Brings a file; the event that is saved afterwards names it. */
export const bringFile = (file: File) =>
  bring<EventFile>(`/files?name=${encodeURIComponent(file.name)}`, file, {
    away: t('nameCouldNotBeBrought', { name: file.name }),
    tooLarge: t('nameIsTooLargeA', { name: file.name }),
  })

/** Puts another version of a file in its place; all events that hold it have it from then on. */
export const replaceFile = (id: string, file: File) =>
  bring<ReplacedFile>(
    `/files/${id}?name=${encodeURIComponent(file.name)}`,
    file,
    {
      away: t('nameCouldNotBeBrought', { name: file.name }),
      tooLarge: t('nameIsTooLargeA', { name: file.name }),
    },
    'PUT',
  )
