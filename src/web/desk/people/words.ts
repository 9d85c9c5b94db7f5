import type messages from '../../../words/en/people.json'
import { catalogue } from '../catalogue'

export const t = await catalogue<typeof messages>(import.meta.glob('../../../words/*/people.json', { import: 'default' }))
