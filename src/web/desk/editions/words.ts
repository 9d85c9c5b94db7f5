import type messages from '../../../words/en/editions.json'
import { catalogue } from '../catalogue'

export const t = await catalogue<typeof messages>(import.meta.glob('../../../words/*/editions.json', { import: 'default' }))
