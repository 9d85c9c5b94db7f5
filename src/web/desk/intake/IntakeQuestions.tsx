import { FillableOptions } from '../calendars/FillableOptions'
import { todayIn } from '../../shared/days'
import { useZones } from '../calendars/queries'
import { DayField } from '../event/DayField'
import { useOrganisation, useSession } from '../session/queries'
import type { Intake, IntakeAnswers, IntakeFound } from '../types'
import { ZoneChoice } from '../ZoneChoice'
import { TextQuestion } from './TextQuestion'
import { CalendarWords, CategoryWords } from './IntakeWords'
import { t } from './words'

interface IntakeQuestionsProps {
  intake: Intake
  found: IntakeFound
  answer: (change: Partial<IntakeAnswers>) => void
}

/** What whoever brings a file says of it, once. */
export function IntakeQuestions({ intake, found, answer }: IntakeQuestionsProps) {
  const { answers } = intake
  const { zone } = useOrganisation()
  const zones = useZones().data ?? []
  const isAdministrator = useSession().data?.person?.isAdministrator === true
  const today = todayIn(zone)
  return (
    <section className="intake-questions" aria-labelledby="questions">
      <h2 id="questions">{t('whichGoesWhere')}</h2>
      <WhichCalendar answers={answers} isTable={intake.form === 'table'} answer={answer} />
      {answers.calendarBy !== 'one' && <CalendarWords found={found} answers={answers} answer={answer} />}
      {found.categories.length > 0 && (
        <>
          <h2>{t('categories')}</h2>
          <CategoryWords found={found} answers={answers} mayMake={isAdministrator} answer={answer} />
        </>
      )}
      {(found.needsZone || found.asksDayOrder || answers.dayOrder !== 'asUsual') && <h2>{t('howToRead')}</h2>}
      {found.needsZone && (
        <label className="intake-question">
          <span>{t('timesAreIn')}</span>
          <ZoneChoice aria-label={t('timesAreIn')} value={found.zone} zones={zones} onChange={(name) => answer({ zone: name })} />
        </label>
      )}
      {(found.asksDayOrder || answers.dayOrder !== 'asUsual') && (
        <label className={found.asksDayOrder && answers.dayOrder === 'asUsual' ? 'intake-question is-asked' : 'intake-question'}>
          <span>{t('dayOrder')}</span>
          <select
            className="form-select"
            value={answers.dayOrder}
            onChange={(event) => answer({ dayOrder: event.target.value as IntakeAnswers['dayOrder'] })}
          >
            <option value="asUsual">{t('asUsual')}</option>
            <option value="dayFirst">{t('dayFirst')}</option>
            <option value="monthFirst">{t('monthFirst')}</option>
          </select>
        </label>
      )}
      <h2>{t('onlyAPart')}</h2>
      <div className="intake-question">
        <span>{t('fromDay')}</span>
        <DayField
          id="from"
          label={t('fromDay')}
          value={answers.from ?? null}
          today={today}
          onChange={(from) => answer({ from })}
        />
      </div>
      <div className="intake-question">
        <span>{t('untilDay')}</span>
        <DayField
          id="until"
          label={t('untilDay')}
          value={answers.until ?? null}
          today={today}
          onChange={(until) => answer({ until })}
        />
      </div>
      <TextQuestion
        key={answers.text ?? ''}
        value={answers.text ?? ''}
        onChange={(text) => answer({ text: text === '' ? null : text })}
      />
      {found.categories.length > 0 && (
        <label className="intake-question">
          <span>{t('ofTheCategory')}</span>
          <select
            className="form-select"
            value={answers.only?.[0] ?? ''}
            onChange={(event) => answer({ only: event.target.value === '' ? [] : [event.target.value] })}
          >
            <option value="">{t('anyCategory')}</option>
            {found.categories.map(({ word }) => (
              <option key={word} value={word}>
                {word}
              </option>
            ))}
          </select>
        </label>
      )}
      {found.leftOut > 0 && <p className="soft">{t('leftOut', { count: found.leftOut })}</p>}
      {found.encoding !== '' && (
        <details className="intake-encoding">
          <summary>{t('lettersLookWrong')}</summary>
          <label className="intake-question">
            <span>{t('encoding')}</span>
            <select
              className="form-select"
              value={answers.encoding ?? found.encoding}
              onChange={(event) => answer({ encoding: event.target.value })}
            >
              {encodings.map((one) => (
                <option key={one} value={one}>
                  {t(`encoding_${one}`)}
                </option>
              ))}
            </select>
          </label>
        </details>
      )}
    </section>
  )
}

/** As the server knows them. */
const encodings = [
  'utf-8',
  'utf-16',
  'windows-1252',
  'windows-1250',
  'windows-1251',
  'windows-1253',
  'windows-1254',
  'macintosh',
] as const

interface WhichCalendarProps {
  answers: IntakeAnswers
  isTable: boolean
  answer: (change: Partial<IntakeAnswers>) => void
}

function WhichCalendar({ answers, isTable, answer }: WhichCalendarProps) {
  return (
    <>
      <label className="intake-question">
        <span>{t('calendarBy')}</span>
        <select
          className="form-select"
          value={answers.calendarBy}
          onChange={(event) => answer({ calendarBy: event.target.value as IntakeAnswers['calendarBy'] })}
        >
          <option value="one">{t('allOnOne')}</option>
          {isTable && <option value="column">{t('asAColumnSays')}</option>}
          <option value="category">{t('asCategoriesSay')}</option>
        </select>
      </label>
      <label className="intake-question">
        <span>{t(answers.calendarBy === 'one' ? 'onWhichCalendar' : 'allElse')}</span>
        <select
          className="form-select"
          value={answers.calendarId ?? ''}
          onChange={(event) => answer({ calendarId: event.target.value || null })}
        >
          <option value="">{t(answers.calendarBy === 'one' ? 'choose' : 'isAsked')}</option>
          <FillableOptions />
        </select>
      </label>
    </>
  )
}
