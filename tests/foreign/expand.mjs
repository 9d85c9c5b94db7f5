// What two foreign libraries make of a feed: reads {feed, from, to} as JSON, writes for each [title, start, end] of every date that starts in the window.
import ICAL from 'ical.js'
import ical from 'node-ical'

let text = ''
for await (const piece of process.stdin) text += piece
const { feed, from, to } = JSON.parse(text)
const [first, last] = [new Date(from), new Date(to)]
const day = (date) => `${date.getFullYear()}-${String(date.getMonth() + 1).padStart(2, '0')}-${String(date.getDate()).padStart(2, '0')}`
const moment = (date) => date.toISOString().slice(0, 19) + 'Z'

function byIcalJs() {
  const calendar = new ICAL.Component(ICAL.parse(feed))
  for (const zone of calendar.getAllSubcomponents('vtimezone')) ICAL.TimezoneService.register(zone)
  const said = []
  const add = (title, start, end) => {
    const [begins, ends] = start.isDate ? [start.toString(), end.toString()] : [moment(start.toJSDate()), moment(end.toJSDate())]
    const at = start.isDate ? new Date(`${begins}T00:00:00Z`) : start.toJSDate()
    if (at >= first && at < last) said.push([title, begins, ends])
  }
  const components = calendar.getAllSubcomponents('vevent')
  const uidOf = (component) => component.getFirstPropertyValue('uid')
  const exceptions = new Map()
  for (const component of components.filter((one) => one.hasProperty('recurrence-id')))
    exceptions.set(uidOf(component), [...(exceptions.get(uidOf(component)) ?? []), component])
  for (const component of components) {
    if (component.hasProperty('recurrence-id')) continue
    const event = new ICAL.Event(component, { strictExceptions: true, exceptions: exceptions.get(uidOf(component)) ?? [] })
    if (!event.isRecurring()) {
      add(event.summary, event.startDate, event.endDate)
      continue
    }
    const dates = event.iterator()
    for (let next = dates.next(), count = 0; next && count < 5_000 && next.toJSDate() < new Date(+last + 40 * 86_400_000); next = dates.next(), count++) {
      const { item, startDate, endDate } = event.getOccurrenceDetails(next)
      add(item.summary, startDate, endDate)
    }
  }
  return said
}

function byNodeIcal() {
  const said = []
  for (const event of Object.values(ical.sync.parseICS(feed))) {
    if (event?.type !== 'VEVENT') continue
    for (const one of ical.expandRecurringEvent(event, { from: new Date(+first - 3 * 86_400_000), to: new Date(+last + 86_400_000) })) {
      const at = one.isFullDay ? new Date(`${day(one.start)}T00:00:00Z`) : one.start
      if (at < first || at >= last) continue
      said.push([String(one.summary?.val ?? one.summary), one.isFullDay ? day(one.start) : moment(one.start), one.isFullDay ? day(one.end) : moment(one.end)])
    }
  }
  return said
}

const attempt = (read) => {
  try {
    return read()
  } catch (problem) {
    return { problem: String(problem?.stack ?? problem) }
  }
}

process.stdout.write(JSON.stringify({ 'ical.js': attempt(byIcalJs), 'node-ical': attempt(byNodeIcal) }))
