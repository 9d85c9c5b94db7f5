import type messages from '../../../words/en/calendars.json'
import { catalogue } from '../catalogue'

export const t = await catalogue<typeof messages>(import.meta.glob('../../../words/*/calendars.json', { import: 'default' }))
