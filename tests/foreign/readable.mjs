// What two foreign libraries make of files: reads [[name, text]] as JSON, writes for each library and name how many events with a start it reads (several components of one name are one), and 0 where it gives up.
import ICAL from 'ical.js'
import ical from 'node-ical'

let text = ''
for await (const piece of process.stdin) text += piece

const readers = {
  'ical.js': (file) => {
    const parsed = ICAL.parse(file)
    const calendars = Array.isArray(parsed[0]) ? parsed : [parsed]
    const names = calendars
      .map((calendar) => new ICAL.Component(calendar))
      .flatMap((calendar) => calendar.getAllSubcomponents('vevent'))
      .filter((event) => event.getFirstPropertyValue('dtstart') instanceof ICAL.Time)
      .map((event, index) => event.getFirstPropertyValue('uid') ?? index)
    return new Set(names).size
  },
  'node-ical': (file) => Object.values(ical.sync.parseICS(file)).filter((one) => one?.type === 'VEVENT' && one.start instanceof Date && !isNaN(one.start)).length,
}

const attempt = (read, file) => {
  try {
    return read(file)
  } catch {
    return 0
  }
}

// What they print about files that are wrong is no answer.
console.warn = console.error = console.log = () => {}
const answer = Object.entries(readers).map(([name, read]) => [name, Object.fromEntries(JSON.parse(text).map(([file, content]) => [file, attempt(read, content)]))])
process.stdout.write(JSON.stringify(Object.fromEntries(answer)))
