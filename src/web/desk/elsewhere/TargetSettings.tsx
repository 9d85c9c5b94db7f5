import { useNavigate } from 'react-router'
import { FillableOptions } from '../calendars/FillableOptions'
import { addDays, todayIn } from '../../shared/days'
import { Field, WhatWasRefused } from '../Field'
import { useOrganisation } from '../session/queries'
import { useToast } from '../Toasts'
import type { Target } from '../types'
import { useFields } from '../useFields'
import { usePost } from '../usePost'
import { useAttempt, useWrite } from '../useWrite'
import { WhatIsWritten, whatOf } from './WhatIsWritten'
import { t } from './words'

/** What is written there; what is brought from there; and giving it up. */
export function TargetSettings({ target }: { target: Target }) {
  return (
    <>
      {target.takes === 'chosen' && <ChooseByDays target={target} />}
      <BringBack target={target} />
      <Settings target={target} />
      <GiveUp target={target} />
    </>
  )
}

function Settings({ target }: { target: Target }) {
  const fields = useFields({
    name: target.name,
    audience: target.audience as string,
    takes: target.takes as string,
    from: target.from ?? '',
    until: target.until ?? '',
    user: '',
    password: '',
  })
  const { values, text } = fields
  const { problem, isBusy, post } = usePost()
  const write = useWrite()
  return (
    <details className="source-more">
      <summary>{t('changeIt')}</summary>
      <form
        onSubmit={(event) => {
          event.preventDefault()
          void post(async () => {
            await write('PUT', `/targets/${target.id}`, {
              version: target.version,
              name: values.name,
              ...whatOf(values, !target.isAudienceFixed),
              access:
                values.user.trim() === ''
                  ? null
                  : { address: null, user: values.user, password: values.password, headerName: null, headerValue: null },
            })
          })
        }}
      >
        <Field id="name" label={t('nameHere')} problem={problem} {...text('name')} />
        <WhatIsWritten fields={fields} calendarId={target.isAudienceFixed ? null : target.calendarId} problem={problem} />
        <p className="soft">{t('anotherPassword')}</p>
        <div className="source-pair">
          <Field id="user" label={t('user')} autoComplete="off" problem={problem} {...text('user')} />
          <Field id="password" label={t('password')} type="password" autoComplete="off" problem={problem} {...text('password')} />
        </div>
        <WhatWasRefused problem={problem} fields={['name', 'from', 'until', 'user', 'password']} />
        <button type="submit" className="btn btn-outline-ink" disabled={isBusy}>
          {t('save')}
        </button>
      </form>
    </details>
  )
}

/** Two days, today and some later, until others are said. */
function useDays(later: number) {
  const today = todayIn(useOrganisation().zone)
  return useFields({ first: today, last: addDays(today, later) })
}

function ChooseByDays({ target }: { target: Target }) {
  const { values, text } = useDays(120)
  const { problem, isBusy, post } = usePost()
  const write = useWrite()
  const toast = useToast()
  const choose = (isChosen: boolean) =>
    void post(async () => {
      const { count } = await write('POST', `/targets/${target.id}/choose`, {
        from: values.first || null,
        until: values.last || null,
        isChosen,
      })
      toast(t(isChosen ? 'soManyGoThere' : 'soManyGoNoMore', { count }))
    })
  return (
    <details className="source-more">
      <summary>{t('chooseByDays')}</summary>
      <p className="soft">{t('whatChoosingIs')}</p>
      <div className="source-pair">
        <Field id="choose-from" label={t('fromDay')} type="date" problem={null} {...text('first')} />
        <Field id="choose-until" label={t('untilDay')} type="date" problem={null} {...text('last')} />
      </div>
      <button type="button" className="btn btn-outline-ink" disabled={isBusy} onClick={() => choose(true)}>
        {t('chooseThem')}
      </button>{' '}
      <button type="button" className="btn btn-outline-ink" disabled={isBusy} onClick={() => choose(false)}>
        {t('chooseThemNoMore')}
      </button>
      <WhatWasRefused problem={problem} fields={[]} />
    </details>
  )
}

function BringBack({ target }: { target: Target }) {
  const { values, text } = useDays(120)
  const where = useFields({ calendarId: target.calendarId ?? '' })
  const { problem, isBusy, post } = usePost()
  const write = useWrite()
  const navigate = useNavigate()
  return (
    <details className="source-more">
      <summary>{t('bringBack')}</summary>
      <p className="soft">{t('whatBringingIs')}</p>
      <form
        onSubmit={(event) => {
          event.preventDefault()
          void post(async () => {
            const brought = await write('POST', `/targets/${target.id}/bring`, {
              days: { from: values.first || null, until: values.last || null, isChosen: true },
              calendarId: where.values.calendarId || null,
            })
            await navigate(`/intake/${brought.id}`)
          })
        }}
      >
        <div className="source-pair">
          <Field id="bring-from" label={t('fromDay')} type="date" problem={null} {...text('first')} />
          <Field id="bring-until" label={t('untilDay')} type="date" problem={null} {...text('last')} />
        </div>
        <div className="field">
          <label htmlFor="bring-on">{t('newOnesStandOn')}</label>
          <select id="bring-on" className="form-select inline-select" {...where.text('calendarId')}>
            <option value="">{t('choose')}</option>
            <FillableOptions />
          </select>
        </div>
        <button type="submit" className="btn btn-outline-ink" disabled={isBusy || where.values.calendarId === ''}>
          {isBusy ? t('looking') : t('lookAtWhatIsThere')}
        </button>
        <WhatWasRefused problem={problem} fields={[]} />
      </form>
    </details>
  )
}

function GiveUp({ target }: { target: Target }) {
  const write = useWrite()
  const attempt = useAttempt()
  const navigate = useNavigate()
  const toast = useToast()
  const leave = (keepsThere: boolean) =>
    void attempt(async () => {
      await write('DELETE', `/targets/${target.id}?keepsThere=${keepsThere}`)
      await navigate(target.calendarId ? `/calendars/${target.calendarId}/publishing` : `/editions/${target.editionId}`)
      toast(t(keepsThere ? 'writtenNoMore' : 'isBeingTakenAway', { name: target.name }))
    })
  return (
    <details className="source-more" open={target.health === 'leaving' || undefined}>
      <summary>{t('giveItUp')}</summary>
      <p className="soft">{t('whatBecomesOfItThere')}</p>
      <button type="button" className="btn btn-outline-ink" onClick={() => leave(true)}>
        {t('eventsStayThere')}
      </button>{' '}
      <button type="button" className="btn btn-brick" disabled={target.health === 'leaving'} onClick={() => leave(false)}>
        {t('takeThemAway')}
      </button>
    </details>
  )
}
