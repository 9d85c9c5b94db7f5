import { Refusal } from '../Refusal'
import type { Reminder } from '../types'
import { NumberField } from './NumberField'
import { TimeField } from './TimeField'
import { t } from './words'

interface ReminderFieldProps {
  id: string
  value: Reminder | null
  /** What it is called where it reminds of nothing; without it there is always a reminder. */
  none?: string
  refusal?: string
  onChange: (reminder: Reminder | null) => void
}

/** The day before, in the evening: what most people set. */
export const usualReminder: Reminder = { amount: 1, unit: 'days', at: '18:00:00' }

/** When programs remind of something, as a sentence. */
export function ReminderField({ id, value, none, refusal, onChange }: ReminderFieldProps) {
  const set = (part: Partial<Reminder>) => onChange({ ...(value ?? usualReminder), ...part })
  return (
    <span className="reminder">
      {value && <NumberField label={t('reminderAmount')} value={value.amount} onChange={(amount) => set({ amount })} />}
      <select
        className="form-select inline-choice"
        aria-label={t('reminderUnit')}
        value={value?.unit ?? ''}
        onChange={(event) => {
          const unit = event.target.value as Reminder['unit'] | ''
          if (unit === '') onChange(null)
          else set({ unit, at: unit === 'days' ? (value ?? usualReminder).at : undefined })
        }}
      >
        {none !== undefined && <option value="">{none}</option>}
        <option value="minutes">{t('minutesBefore')}</option>
        <option value="hours">{t('hoursBefore')}</option>
        <option value="days">{t('daysBefore')}</option>
      </select>
      {value?.unit === 'days' && (
        <>
          <span>{t('atTime')}</span>
          <TimeField
            id={`${id}-at`}
            label={t('reminderTime')}
            value={value.at?.slice(0, 5) ?? null}
            onChange={(at) => set({ at: at ? `${at}:00` : undefined })}
          />
        </>
      )}
      <Refusal id={`${id}-refusal`} text={refusal} />
    </span>
  )
}
