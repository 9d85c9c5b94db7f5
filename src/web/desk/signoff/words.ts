import type messages from '../../../words/en/signoff.json'
import { catalogue } from '../catalogue'

export const t = await catalogue<typeof messages>(import.meta.glob('../../../words/*/signoff.json', { import: 'default' }))
