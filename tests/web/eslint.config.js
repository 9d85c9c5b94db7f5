import shared from '../../src/web/eslint.config.js'

// What is not there fails a test where it is used.
export default [...shared, { rules: { '@typescript-eslint/no-non-null-assertion': 'off' } }]
