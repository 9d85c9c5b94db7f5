/** What time it is in every test: a Monday at eight in the morning in Halifax. */
export const moment = '2026-11-23T12:00:00.000Z'
