import next from 'eslint-config-next';
import tseslint from 'typescript-eslint';

const compilerRules = next
  .flatMap(({ rules = {} }) => Object.keys(rules))
  .filter((rule) => rule.startsWith('react-hooks/') && !/rules-of-hooks|exhaustive-deps/.test(rule));

export default tseslint.config(
  { ignores: ['.data/**', '.next/**', 'node_modules/**', 'next-env.d.ts'] },
  // What is not a component has no hooks and no elements: its rules would only read it once more.
  ...next.map((config) => (config.name === 'next' ? { ...config, files: ['**/*.tsx', '**/*.mjs'] } : config)),
  ...tseslint.configs.strictTypeChecked.map((config) => ({ ...config, files: ['**/*.ts', '**/*.tsx'] })),
  {
    files: ['**/*.ts', '**/*.tsx'],
    languageOptions: { parserOptions: { projectService: true } },
    rules: {
      // Numbers read well in template text; everything else must be turned into words on purpose.
      '@typescript-eslint/restrict-template-expressions': [
        'error',
        { allowNumber: true, allowBoolean: false },
      ],
      '@typescript-eslint/no-confusing-void-expression': 'off',
      // What takes more takes an object, so that its parts are named where it is called.
      '@typescript-eslint/max-params': ['error', { max: 6 }],
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      // There are no enums here, and no two classes of one shape: these three look at every assignment for nothing.
      '@typescript-eslint/no-unsafe-enum-assignment': 'off',
      '@typescript-eslint/no-unsafe-enum-comparison': 'off',
      '@typescript-eslint/no-unsafe-class-instance-assignment': 'off',
      '@typescript-eslint/no-misused-promises': ['error', { checksVoidReturn: { attributes: false } }],
    },
  },
  {
    // Whatever is read comes from the catalogue. The two that say that nothing works need no catalogue to say it.
    files: ['src/**/*.tsx'],
    rules: {
      'react/jsx-no-literals': [
        'error',
        {
          allowedStrings: [
            '·',
            '–',
            '−',
            '×',
            '+',
            ':',
            ',',
            '.',
            '…',
            '→',
            '(',
            ')',
            '“',
            '”',
            '%',
            '/',
            '?',
            'PDF',
            'v',
          ],
        },
      ],
    },
  },
  {
    // Pages that the server makes hold no state and no effects: there is nothing in them for the compiler's rules.
    files: ['src/app/**/*.tsx'],
    rules: Object.fromEntries(compilerRules.map((rule) => [rule, 'off'])),
  },
  {
    // The compiler knows the types of tests; what it cannot see is a promise that nobody waits for.
    ...tseslint.configs.disableTypeChecked,
    files: ['**/*.test.ts', 'tests/**/*.ts'],
    languageOptions: { parserOptions: { projectService: true } },
    rules: {
      ...tseslint.configs.disableTypeChecked.rules,
      '@typescript-eslint/no-floating-promises': 'error',
      '@typescript-eslint/await-thenable': 'error',
      '@typescript-eslint/no-non-null-assertion': 'off',
    },
  },
);
