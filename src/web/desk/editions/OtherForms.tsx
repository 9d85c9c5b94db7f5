import { Copyable } from '../calendars/Copyable'
import { t } from './words'

const forms = [
  ['.ifb', t('busyTimes'), t('copyBusyTimes'), t('aboutBusyTimes')],
  ['.csv', t('asTable'), t('copyTable'), t('aboutTable')],
  ['/v1.json', t('asJson'), t('copyJson'), t('aboutJson')],
  ['.jcal', t('asJcal'), t('copyJcal'), t('aboutJcal')],
] as const

/** The same entries in forms that other programs read. */
export function OtherForms({ feed }: { feed: string }) {
  return (
    <details>
      <summary>{t('otherForms')}</summary>
      <p className="soft">{t('aboutOtherForms')}</p>
      {forms.map(([ending, name, button, about]) => (
        <Copyable key={ending} name={name} button={button} text={feed.replace(/\.ics$/, ending)}>
          {about}
        </Copyable>
      ))}
    </details>
  )
}
