import type messages from '../../../words/en/intake.json'
import { catalogue } from '../catalogue'

export const t = await catalogue<typeof messages>(import.meta.glob('../../../words/*/intake.json', { import: 'default' }))
