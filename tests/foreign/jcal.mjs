// Reads {"feed", "jcal"} and says where what ical.js makes of the feed differs from the jCal that came with it.
import ICAL from 'ical.js'
import { text } from 'node:stream/consumers'

const { feed, jcal } = JSON.parse(await text(process.stdin))
const differences = []

function compare(theirs, ours, path) {
  if (JSON.stringify(theirs) === JSON.stringify(ours)) return
  if (Array.isArray(theirs) && Array.isArray(ours) && theirs.length === ours.length)
    theirs.forEach((one, index) => compare(one, ours[index], `${path}/${typeof theirs[0] === 'string' ? theirs[0] : ''}${index}`))
  // Properties that are younger than it have no type there (RFC 7265 5).
  else if (theirs !== 'unknown') differences.push([path, theirs, ours])
}

compare(ICAL.parse(feed), JSON.parse(jcal), '')
process.stdout.write(JSON.stringify({ differences }))
