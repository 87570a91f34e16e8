import tseslint from 'typescript-eslint';
import hooks from 'eslint-plugin-react-hooks';

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

export default tseslint.config(
  { ignores: ['node_modules', '.next', 'out', 'next-env.d.ts', 'public'] },
  ...tseslint.configs.recommended,
  { plugins: { 'react-hooks': hooks }, rules: hooks.configs.recommended.rules },
  ...Object.keys(layers).map(direction),
);
