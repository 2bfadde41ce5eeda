import js from '@eslint/js'
import reactHooks from 'eslint-plugin-react-hooks'
import tseslint from 'typescript-eslint'

// Who may import what; the rooms are described in docs/architecture.md.
const pure = {
  group: ['**/api/*', '**/api', '**/app/*', '**/stages/*', '**/kitchen/*', '**/logbook/*'],
  message: 'Figures and ui know nothing of the API or of the pages.',
}
const radix = { group: ['radix-ui', '@radix-ui/*'], message: 'Only ui dresses Radix.' }

export default tseslint.config(
  { ignores: ['src/api/schema.d.ts'] },
  js.configs.recommended,
  ...tseslint.configs.strict,
  reactHooks.configs.flat.recommended,
  {
    rules: {
      'no-restricted-imports': ['error', { patterns: [radix] }],
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_' }],
    },
  },
  { files: ['src/figures/**'], rules: { 'no-restricted-imports': ['error', { patterns: [radix, pure] }] } },
  { files: ['**/*.test.ts'], rules: { '@typescript-eslint/no-non-null-assertion': 'off' } },
  { files: ['src/ui/**'], rules: { 'no-restricted-imports': ['error', { patterns: [pure] }] } },
)
