import { t } from './words'

/** How often one may be asked, in minutes. */
export const rhythms = [30, 60, 120, 360, 720, 1440, 10080]

export const sayRhythm = (minutes: number): string =>
  minutes < 60
    ? t('everyMinutes', { count: minutes })
    : minutes < 1440
      ? t('everyHours', { count: minutes / 60 })
      : t('everyDays', { count: minutes / 1440 })

/** "12 kB". */
export const sayBytes = (bytes: number): string =>
  bytes < 1_000_000
    ? t('kilobytes', { count: Math.max(1, Math.round(bytes / 1000)) })
    : t('megabytes', { count: Math.round(bytes / 1e6) })
