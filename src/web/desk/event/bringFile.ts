import { bring } from '../api'
import type { EventFile } from '../types'
import { t } from '../words'

/** Brings a file; the event that is saved afterwards names it. */
export const bringFile = (file: File) =>
  bring<EventFile>(`/files?name=${encodeURIComponent(file.name)}`, file, {
    away: t('nameCouldNotBeBrought', { name: file.name }),
    tooLarge: t('nameIsTooLargeA', { name: file.name }),
  })
