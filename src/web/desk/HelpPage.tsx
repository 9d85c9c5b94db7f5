import { Explained, KeyList } from './KeysHelp'
import { t } from './words'

const parts: [string, string][] = [
  [t('theTitle'), t('comesFirstAndEndsWhere')],
  [t('aDay'), t('howADayIsWritten')],
  [t('partTimes'), t('howTimesAreWritten')],
  [t('everyMark'), t('howAPatternIsWritten')],
  [t('untilMark'), t('theLastDay')],
  [t('inMark'), t('thePlace')],
  ['#…', t('aTagSeveralArePossible')],
  ['@…', t('thePlateOfTheCalendar')],
]

/** How to write an event in one line, and which keys do what. */
export function HelpPage() {
  return (
    <main className="page help">
      <h1>{t('help')}</h1>
      <section>
        <h2>{t('anEventInOneLine')}</h2>
        <p>{t('writeItAsYouWould')}</p>
        <p className="example">{t('lineExample')}</p>
        <Explained list={parts} />
        <p>{t('thePartsMayStandIn')}</p>
      </section>
      <section>
        <h2>{t('severalEventsAtOnce')}</h2>
        <p>{t('copyLinesFromASpreadsheet')}</p>
      </section>
      <section>
        <h2>{t('manyAtOnce')}</h2>
        <p>{t('howManyAreChosen')}</p>
      </section>
      <section>
        <h2>{t('aYearForward')}</h2>
        <p>{t('howAYearIsCarried')}</p>
      </section>
      <section>
        <h2>{t('theYearOnASheet')}</h2>
        <p>{t('howAYearIsPrinted')}</p>
      </section>
      <section>
        <h2>{t('aRuleAsText')}</h2>
        <p>{t.rich('whatNoSentenceCanSay', {}, <code />)}</p>
      </section>
      <section>
        <h2>{t('keys')}</h2>
        <KeyList />
      </section>
    </main>
  )
}
