import { Explained, KeyList } from './KeysHelp'

const parts: [string, string][] = [
  ['the title', 'comes first, and ends where one of the parts below begins. Put words in “quotes” to keep them together.'],
  ['a day', '24 Nov · 24.11. · 24/11/26 · 2026-11-24 · today · tomorrow · Tue (the next one); “on” may stand before it.'],
  ['times', '14:00–15:30 · 2–3.30pm · 9:30 · at 9 · from 9 to 10 · all day. Without an end it lasts an hour.'],
  [
    'every …',
    'Tue · Tue and Thu · second Tue (every two weeks) · weekday · day · 3 days · 2 weeks on Mon · month on the 24th · month on the last Friday · first Monday of the month · last weekday of the month · year',
  ],
  ['until …', 'the last day of what repeats; or “for 10 dates”.'],
  ['in …', 'the place.'],
  ['#…', 'a tag; several are possible.'],
  ['@…', 'the plate of the calendar, such as @PW.'],
]

/** How to write an event in one line, and which keys do what. */
export function HelpPage() {
  return (
    <main className="page help">
      <h1>Help</h1>
      <section>
        <h2>An event in one line</h2>
        <p>
          Write it as you would say it, in the field above the plan. It is read into the form, with what was understood beside it;
          nothing is saved before you press Save. Words that mean nothing here are shown, never dropped.
        </p>
        <p className="example">Sail repair every Tue 14:00–15:30 in Slipway until 18 Dec #practical @PW</p>
        <Explained list={parts} />
        <p>The parts may stand in any order after the title. Months and weekdays may be shortened to three letters.</p>
      </section>
      <section>
        <h2>Several events at once</h2>
        <p>
          Copy lines from a spreadsheet and paste them into the first cell of the table: date, from, to, title, place, calendar.
          Each line is read as you type. One press saves all of them, or, while one is wrong, none.
        </p>
      </section>
      <section>
        <h2>A rule as text</h2>
        <p>
          What no sentence can say can be written as a recurrence rule of the iCalendar standard (RFC 5545), such as{' '}
          <code>FREQ=MONTHLY;BYDAY=2TU,4TU</code>. Choose “(by a rule)” in the pattern.
        </p>
      </section>
      <section>
        <h2>Keys</h2>
        <KeyList />
      </section>
    </main>
  )
}
