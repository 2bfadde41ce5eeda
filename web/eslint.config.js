import js from '@eslint/js'
import reactHooks from 'eslint-plugin-react-hooks'
import tseslint from 'typescript-eslint'

// The rooms, from the top; each knows those below it, and none beside it (docs/architecture.md).
const rooms = [['shell'], ['bench'], ['intake', 'people', 'kitchen', 'logbook', 'house-dishes', 'explained'], ['stages'], ['shared'], ['api'], ['figures', 'ui']]

function above(room) {
  const level = rooms.findIndex((floor) => floor.includes(room))
  const barred = rooms.slice(0, level + 1).flat().filter((other) => other !== room)
  const group = barred.flatMap((other) => [`**/${other}`, `**/${other}/*`])
  return group.length === 0 ? [] : [{ group, message: `What is in ${room} knows only the rooms below it.` }]
}

// The page reads no meaning out of text: the server sends keys, parts and figures.
const reading = [
  { selector: 'Literal[regex]', message: 'The page reads no text: ask the server for a key or a part.' },
  { selector: "NewExpression[callee.name='RegExp']", message: 'The page reads no text: ask the server for a key or a part.' },
  {
    selector: 'CallExpression[callee.property.name=/^(split|match|matchAll|replace|replaceAll|search)$/]',
    message: 'The page takes no text apart: ask the server for parts.',
  },
  {
    selector: 'BinaryExpression[operator=/^[!=]==$/] > MemberExpression[property.name=/^(what|label|word|title)$/]',
    message: 'Nothing is found by its English: use its key.',
  },
]
const radix = { group: ['radix-ui', '@radix-ui/*'], message: 'Only ui dresses Radix.' }

export default tseslint.config(
  { ignores: ['src/api/schema.d.ts'] },
  js.configs.recommended,
  ...tseslint.configs.strict,
  reactHooks.configs.flat.recommended,
  {
    rules: {
      'no-restricted-imports': ['error', { patterns: [radix] }],
      'no-restricted-syntax': ['error', ...reading],
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_' }],
    },
  },
  // Cookies, addresses and dotted names are no sentences; a test may look at what it drew.
  { files: ['src/api/**', 'src/sw.ts', '**/*.test.ts'], rules: { 'no-restricted-syntax': 'off' } },
  ...rooms.flat().map((room) => ({
    files: [`src/${room}/**`],
    rules: { 'no-restricted-imports': ['error', { patterns: [...(room === 'ui' ? [] : [radix]), ...above(room)] }] },
  })),
  { files: ['**/*.test.ts'], rules: { '@typescript-eslint/no-non-null-assertion': 'off' } },
)
