import type messages from '../../../words/en/deliveries.json'
import { catalogue } from '../catalogue'

export const t = await catalogue<typeof messages>(import.meta.glob('../../../words/*/deliveries.json', { import: 'default' }))
