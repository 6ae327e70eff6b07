import js from '@eslint/js'
import boundaries from 'eslint-plugin-boundaries'
import hooks from 'eslint-plugin-react-hooks'
import ts from 'typescript-eslint'

/** Import arrows: app → tasks → ui, api, domain; a task never imports another; ui knows no data. */
const elements = [
  { type: 'app', pattern: 'src/app/**' },
  { type: 'task', pattern: 'src/tasks/*', capture: ['task'] },
  { type: 'ui', pattern: 'src/ui/**' },
  { type: 'api', pattern: 'src/api/**' },
  { type: 'domain', pattern: 'src/domain/**' },
]

export default ts.config(
  { ignores: ['src/api/schema.d.ts'] },
  js.configs.recommended,
  ...ts.configs.strict,
  {
    files: ['src/**/*.{ts,tsx}'],
    plugins: { 'react-hooks': hooks, boundaries },
    settings: { 'boundaries/elements': elements, 'import/resolver': { node: { extensions: ['.ts', '.tsx'] } } },
    rules: {
      ...hooks.configs.recommended.rules,
      '@typescript-eslint/consistent-type-imports': 'error',
      // Taking a field out of an object by naming it beside the rest is how it is left out.
      '@typescript-eslint/no-unused-vars': ['error', { ignoreRestSiblings: true }],
      'boundaries/dependencies': [
        'error',
        {
          default: 'disallow',
          policies: [
            { from: { element: { type: 'app' } }, allow: { to: { element: { type: ['app', 'task', 'ui', 'api', 'domain'] } } } },
            { from: { element: { type: 'task' } }, allow: { to: { element: { type: ['ui', 'api', 'domain'] } } } },
            { from: { element: { type: 'task' } }, allow: { to: { element: { type: 'task', captured: { task: '{{ from.captured.task }}' } } } } },
            { from: { element: { type: 'ui' } }, allow: { to: { element: { type: ['ui', 'domain'] } } } },
            { from: { element: { type: 'api' } }, allow: { to: { element: { type: ['api', 'domain'] } } } },
            { from: { element: { type: 'domain' } }, allow: { to: { element: { type: 'domain' } } } },
          ],
        },
      ],
    },
  },
)
