import { readdirSync } from 'node:fs';
import tseslint from 'typescript-eslint';
import hooks from 'eslint-plugin-react-hooks';
import a11y from 'eslint-plugin-jsx-a11y';

/** Arrows go one way: app, stations, then ui, store, media and workers, then core. */
const layers = { core: 0, media: 1, store: 1, workers: 2, ui: 3, stations: 4 };
const above = (name) => Object.keys(layers).filter((other) => layers[other] > layers[name]);
const direction = (name) => ({
  files: [`src/${name}/**/*.{ts,tsx}`],
  ignores: ['**/*.test.ts'],
  rules: {
    'no-restricted-imports': [
      'error',
      {
        patterns: [
          {
            group: [
              '@/app/*',
              ...above(name).flatMap((other) => [`@/${other}/*`, `**/${other}/**`]),
              ...(name === 'core'
                ? ['react*', 'next*', 'dexie*', 'mediabunny*', 'comlink*', '@/*', 'node:*']
                : []),
            ],
            message: `src/${name} may not import from the layers above it.`,
          },
        ],
      },
    ],
  },
});

/** The kinds, by their folders. */
const kinds = readdirSync(new URL('src/core/recipes', import.meta.url), { withFileTypes: true })
  .filter((entry) => entry.isDirectory())
  .map(({ name }) => name);

/** Kinds of moments are known in their folders, in the two registries and in the weave of the ribbon. What is found in a finished film has names of its own. */
const kindsAtHome = {
  files: ['src/**/*.{ts,tsx}'],
  ignores: [
    '**/*.test.ts',
    '**/__tests__/**',
    'src/core/recipes/**/*',
    'src/core/footage/cuts/**',
    'src/core/model/lift.ts',
    'src/core/practice/**',
    'src/stations/demo-*.ts',
    'src/ui/ribbon/weave.tsx',
  ],
  rules: {
    'no-restricted-syntax': [
      'error',
      ...kinds.flatMap((kind) => [
        {
          selector: `:not(JSXAttribute) > Literal[value='${kind}']`,
          message: `Ask the recipe; only its folder knows “${kind}”.`,
        },
        {
          selector: `ImportDeclaration[source.value=/recipes\\u002F${kind}(\\u002F|$)/]`,
          message: `Ask recipeOf(moment) or filmOf(kind); only the registries import recipes/${kind}.`,
        },
      ]),
      ...[
        'Literal[value=/^slots[.](left|right)/]',
        "CallExpression[callee.name='fillOf'] > Literal[value=/^(left|right)$/]",
      ].map((selector) => ({ selector, message: 'The recipe says which slots a moment has.' })),
    ],
  },
};

export default tseslint.config(
  { ignores: ['node_modules', '.next', 'out', 'next-env.d.ts', 'public'] },
  ...tseslint.configs.recommended,
  { plugins: { 'react-hooks': hooks }, rules: hooks.configs.recommended.rules },
  { files: ['**/*.tsx'], ...a11y.flatConfigs.recommended },
  {
    files: ['**/*.tsx'],
    rules: {
      // What scrolls has to take the focus, or keys could not scroll it.
      'jsx-a11y/no-noninteractive-tabindex': ['error', { tags: ['ul'], roles: ['region', 'tabpanel'] }],
      // A field that opens where something was pressed, and the safe answer of a question, begin with the focus.
      'jsx-a11y/no-autofocus': ['error', { ignoreNonDOM: true }],
      'jsx-a11y/label-has-associated-control': ['error', { controlComponents: ['LiveNumber'] }],
    },
  },
  {
    files: ['**/*.{ts,tsx}'],
    languageOptions: { parserOptions: { projectService: true } },
    rules: { '@typescript-eslint/no-floating-promises': 'error' },
  },
  ...Object.keys(layers).map(direction),
  kindsAtHome,
);
