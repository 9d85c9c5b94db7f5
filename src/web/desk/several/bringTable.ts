import { bring } from '../api'
import type { TableBrought } from '../types'
import { t } from './words'

/** Reads a sheet; nothing of it is made yet. */
export const bringTable = (file: File) =>
  bring<TableBrought>(`/events/several/file?name=${encodeURIComponent(file.name)}`, file, {
    away: t('couldNotBeBrought', { name: file.name }),
    tooLarge: t('isTooLarge', { name: file.name }),
  })
