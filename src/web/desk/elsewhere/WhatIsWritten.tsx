import { useCalendars } from '../calendars/queries'
import { Field } from '../Field'
import { detailSaid } from '../openness'
import type { Problem } from '../Problem'
import type { EditionLine, TargetRequest } from '../types'
import type { useFields } from '../useFields'
import { t } from './words'

export interface What {
  audience: string
  takes: string
  from: string
  until: string
}

/** As it is asked for. An edition has its readers already. */
export const whatOf = (what: What, isStandard: boolean) => ({
  audience: isStandard ? (what.audience as EditionLine['audience']) : null,
  takes: what.takes as TargetRequest['takes'],
  from: what.from || null,
  until: what.until || null,
})

interface WhatIsWrittenProps<Fields extends What> {
  fields: ReturnType<typeof useFields<Fields>>
  /** Of which all or some is written; null for an edition, which has its readers. */
  calendarId: string | null
  problem: Problem | null
}

/** All or what is chosen, for whom, from which day to which. */
export function WhatIsWritten<Fields extends What>({ fields, calendarId, problem }: WhatIsWrittenProps<Fields>) {
  const { text, choice } = fields
  const calendar = useCalendars().data?.find((one) => one.id === calendarId)
  return (
    <>
      <fieldset>
        <legend>{t('whatIsWritten')}</legend>
        <label className="source-choice">
          <input type="radio" {...choice('takes', 'all')} /> <span>{t('takesAll')}</span>
        </label>
        <label className="source-choice">
          <input type="radio" {...choice('takes', 'chosen')} /> <span>{t('takesChosen')}</span>
        </label>
      </fieldset>
      {calendarId && (
        <div className="field">
          <label htmlFor="audience">{t('whoReadsIt')}</label>
          <select id="audience" className="form-select inline-select" {...text('audience')}>
            {(['everyone', 'link', 'members'] as const).map((one) => (
              <option key={one} value={one}>
                {t(one)}
                {calendar && `: ${detailSaid[calendar.disclosure[one]]}`}
              </option>
            ))}
          </select>
          <span className="soft">{t('theySeeWhatTheyMay')}</span>
        </div>
      )}
      <div className="source-pair">
        <Field id="from" label={t('fromDay')} type="date" problem={problem} {...text('from')} />
        <Field id="until" label={t('untilDay')} type="date" problem={problem} {...text('until')} />
      </div>
      <p className="soft">{t('emptyIsAll')}</p>
    </>
  )
}
