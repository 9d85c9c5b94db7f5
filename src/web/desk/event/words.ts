import type messages from '../../../words/en/event.json'
import { catalogue } from '../catalogue'

export const t = await catalogue<typeof messages>(import.meta.glob('../../../words/*/event.json', { import: 'default' }))
