import js from '@eslint/js';
import reactHooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

export default tseslint.config(
  { ignores: ['**/dist/**', '**/node_modules/**', '.data/**', '.test-data/**'] },
  js.configs.recommended,
  ...tseslint.configs.strict,
  {
    files: ['packages/web/**/*.{ts,tsx}'],
    plugins: { 'react-hooks': reactHooks },
    rules: { 'react-hooks/rules-of-hooks': 'error', 'react-hooks/exhaustive-deps': 'error' },
  },
  {
    // Whoever owns a store says what can be done to it; components call that.
    files: ['packages/web/**/*.tsx'],
    rules: {
      'no-restricted-syntax': [
        'error',
        {
          selector: 'CallExpression[callee.property.name="setState"]',
          message: 'Call a function of the store, or of the part that owns it.',
        },
      ],
    },
  },
  {
    files: ['**/*.{ts,tsx}'],
    rules: {
      '@typescript-eslint/consistent-type-imports': ['error', { fixStyle: 'inline-type-imports' }],
      // Void resolvers and handlers read better short.
      '@typescript-eslint/no-invalid-void-type': 'off',
      '@typescript-eslint/no-dynamic-delete': 'off',
    },
  },
  {
    // Every engine reckons these in a way of its own; results have to be the same to the last bit wherever they are worked out.
    files: ['packages/{core,evaluation}/src/**/*.ts'],
    ignores: ['**/*.test.ts', 'packages/core/src/testing/**'],
    rules: {
      'no-restricted-syntax': [
        'error',
        {
          selector:
            'MemberExpression[object.name="Math"][property.name=/^(a?(sin|cos|tan)h?|atan2|exp|expm1|log|log1p|log2|log10|pow|cbrt)$/]',
          message: 'Take it from elementary.ts: engines differ in its last bit.',
        },
        {
          selector:
            'VariableDeclarator[init.name="Math"] Property[key.name=/^(a?(sin|cos|tan)h?|atan2|exp|expm1|log|log1p|log2|log10|pow|cbrt)$/]',
          message: 'Take it from elementary.ts: engines differ in its last bit.',
        },
        {
          selector: 'BinaryExpression[operator="**"]:not([left.value=2])',
          message: 'Take square or pow from elementary.ts: engines differ in the last bit of **.',
        },
      ],
    },
  },
  {
    // A time that is long enough on one machine is too short on another, and too long on most.
    files: ['e2e/*.test.ts'],
    rules: {
      'no-restricted-syntax': [
        'error',
        {
          selector:
            'AwaitExpression NewExpression[callee.name="Promise"] CallExpression[callee.name="setTimeout"]',
          message:
            'Wait for what the test needs: until, waitForText, saved, atRest, or pass for the apparatus.',
        },
      ],
    },
  },
  {
    // Objection's own way: models are classes of static members, and a class field is declared, not assigned.
    files: ['packages/server/src/models/*.ts'],
    rules: { '@typescript-eslint/no-extraneous-class': 'off' },
  },
  {
    files: ['**/*.cjs', '**/*.mjs'],
    languageOptions: {
      globals: {
        module: 'writable',
        require: 'readonly',
        process: 'readonly',
        __dirname: 'readonly',
        console: 'readonly',
        URL: 'readonly',
        setInterval: 'readonly',
        setTimeout: 'readonly',
        clearInterval: 'readonly',
        performance: 'readonly',
        Buffer: 'readonly',
      },
    },
    rules: { '@typescript-eslint/no-require-imports': 'off' },
  },
);
