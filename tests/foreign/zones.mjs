// The offsets in minutes that this machine's time zone database gives some zones at some instants: reads {zones, instants}, writes an array for each zone; null for one that it does not know.
let text = ''
for await (const piece of process.stdin) text += piece
const { zones, instants } = JSON.parse(text)
const offsets = (zone) => {
  let format
  try {
    format = new Intl.DateTimeFormat('en', { timeZone: zone, timeZoneName: 'longOffset' })
  } catch {
    return null
  }
  return instants.map((instant) => {
    const name = format.formatToParts(new Date(instant)).find((part) => part.type === 'timeZoneName').value
    const [, sign, hours, minutes] = /GMT(?:([+-])(\d+):(\d+))?/.exec(name)
    return hours ? (sign === '-' ? -1 : 1) * (Number(hours) * 60 + Number(minutes)) : 0
  })
}
process.stdout.write(JSON.stringify(Object.fromEntries(zones.map((zone) => [zone, offsets(zone)]))))
