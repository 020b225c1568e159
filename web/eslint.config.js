import { readdirSync } from 'node:fs';
import js from '@eslint/js';
import svelte from 'eslint-plugin-svelte';
import globals from 'globals';
import ts from 'typescript-eslint';
import svelteConfig from './svelte.config.js';

/** Rooms point one way: api, kit, draw, project, steps, app. What a room must not know is named here. */
const STEPS = readdirSync(new URL('src/steps', import.meta.url));
const UNKNOWN = {
  api: ['kit', 'draw', 'project', 'steps', 'app'],
  kit: ['draw', 'project', 'steps', 'app'],
  draw: ['project', 'steps', 'app'],
  project: ['steps', 'app'],
  ...Object.fromEntries(
    STEPS.map((step) => [
      `steps/${step}`,
      ['app', ...STEPS.filter((one) => one !== step).map((one) => `steps/${one}`)],
    ]),
  ),
};
const rooms = Object.entries(UNKNOWN).map(([room, unknown]) => ({
  files: [`src/${room}/**`],
  rules: {
    'no-restricted-imports': [
      'error',
      { patterns: [{ group: unknown.map((one) => `@/${one}/*`), message: 'rooms point one way' }] },
    ],
  },
}));

export default ts.config(
  { ignores: ['src/api/generated.ts', 'node_modules/'] },
  js.configs.recommended,
  ...ts.configs.strict,
  ...svelte.configs.recommended,
  { languageOptions: { globals: globals.browser } },
  {
    files: ['**/*.svelte', '**/*.svelte.ts'],
    languageOptions: { parserOptions: { parser: ts.parser, svelteConfig } },
  },
  { rules: { 'no-undef': 'off', 'svelte/no-at-html-tags': 'error' } },
  ...rooms,
);
