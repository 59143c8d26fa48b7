import { spawnSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, expect, it } from 'vitest';

const root = mkdtempSync(path.join(tmpdir(), 'rooms-'));
afterAll(() => rmSync(root, { recursive: true }));

function plant(file: string, text: string): void {
  mkdirSync(path.dirname(path.join(root, file)), { recursive: true });
  writeFileSync(path.join(root, file), text);
}
/** An import of each of the given modules. */
const knowing = (...specifiers: string[]): string =>
  specifiers.map((specifier, n) => `import * as it${n} from '${specifier}';\nvoid it${n};\n`).join('');

/** A small house in which nothing is wrong. */
const HOUSE: Record<string, string> = {
  'tsconfig.json': JSON.stringify({
    compilerOptions: {
      module: 'esnext',
      moduleResolution: 'bundler',
      jsx: 'preserve',
      paths: { '@/*': ['./src/*'] },
    },
  }),
  'migrations/0001_house.sql': 'CREATE TABLE tiers (id text);\nCREATE TABLE holdings (id text);',
  'src/core/money.ts': `${knowing('zod')}export {};\n`,
  'src/words/problems.ts': knowing('../core/money'),
  'src/platform/site.ts': knowing('../core/money', '../words/problems'),
  'src/platform/store/db.ts': knowing('pg'),
  'src/kit/button.tsx': knowing('@/core/money'),
  'src/tiers/store/tiers.ts': `${knowing('@/platform/store/db')}export const all = 'SELECT * FROM tiers';\nexport const add = 'INSERT INTO tiers VALUES (1)';\n`,
  'src/tiers/services/save-tier.ts': knowing('@/tiers/store/tiers', './lib/words'),
  'src/tiers/services/lib/words.ts': 'export {};\n',
  'src/tiers/ui/tier-form.tsx': knowing('@/kit/button'),
  'src/billing/gateways/index.ts': knowing('@/core/money'),
  'src/billing/store/holdings.ts': `${knowing('@/tiers/store/tiers')}export const add = 'UPDATE holdings SET id = 1';\nexport const held = 'SELECT * FROM holdings h JOIN tiers t ON true';\n`,
  'src/billing/services/give-tier.ts': knowing('@/billing/store/holdings', '@/tiers/store/tiers'),
  'src/web/main.ts': knowing('@/platform/site'),
  'src/worker/main.ts': knowing('@/billing/services/give-tier', '@/platform/store/db'),
  'src/app/page.tsx': knowing('@/tiers/services/save-tier', '@/tiers/ui/tier-form'),
};

/** Each breach of a rule by an import, in a file of its own. */
const CLIMBS: [rule: string, file: string, text: string][] = [
  ['tiers knows no later room', 'src/tiers/services/climb-1.ts', knowing('@/billing/services/give-tier')],
  ['tiers knows no later room', 'src/tiers/store/climb-2.ts', knowing('@/billing/store/holdings')],
  [
    'tiers knows no later room',
    'src/tiers/services/climb-3.ts',
    `import type { T } from '@/app/page';\nexport type U = T;\n`,
  ],
  ['core knows nobody', 'src/core/climb-4.ts', knowing('../platform/site')],
  ['core brings no packages but zod, temporal and a hash', 'src/core/climb-5.ts', knowing('pino')],
  ['words know core', 'src/words/climb-0.ts', knowing('../platform/site')],
  ['platform knows core and words', 'src/platform/climb-6.ts', knowing('@/tiers/services/save-tier')],
  ['kit knows core and words', 'src/kit/climb-7.tsx', knowing('@/platform/site')],
  [
    'the web server knows words, platform, and who asks',
    'src/web/climb-8.ts',
    knowing('@/tiers/services/save-tier'),
  ],
  [
    'gateways know core, words and platform',
    'src/billing/gateways/climb-9.ts',
    knowing('@/billing/store/holdings'),
  ],
  ['SQL only in a store', 'src/tiers/services/climb-10.ts', knowing('pg')],
  [
    'a store knows core, words, platform and stores',
    'src/tiers/store/climb-11.ts',
    knowing('@/tiers/services/save-tier'),
  ],
  ['ui knows core, words, kit and ui', 'src/tiers/ui/climb-12.tsx', knowing('@/tiers/store/tiers')],
  ['ui knows core, words, kit and ui', 'src/tiers/ui/climb-13.tsx', knowing('@/tiers/services/save-tier')],
  ['a route calls use cases, and nothing below them', 'src/app/climb-14.tsx', knowing('@/tiers/store/tiers')],
  ['a route calls use cases, and nothing below them', 'src/app/climb-15.tsx', knowing('@/platform/store/db')],
  [
    'a route calls use cases, and nothing below them',
    'src/app/climb-16.tsx',
    knowing('@/tiers/services/lib/words'),
  ],
  ['SQL only in a store', 'src/app/climb-17.tsx', knowing('pg')],
  [
    'the worker calls use cases, and closes the pool',
    'src/worker/climb-18.ts',
    knowing('@/tiers/store/tiers'),
  ],
  ['no circles', 'src/tiers/services/lib/words.ts', knowing('@/tiers/services/save-tier')],
];

/** Each breach by SQL, as it is told. */
const SQL: [breach: string, file: string, text: string][] = [
  [
    'SQL only in a store: src/app/climb-20.ts',
    'src/app/climb-20.ts',
    'export const all = `SELECT * FROM tiers`;\n',
  ],
  [
    'SQL only in a store: src/billing/services/climb-22.ts',
    'src/billing/services/climb-22.ts',
    "export const end = 'DELETE FROM tiers';\n",
  ],
  [
    'a table is written by one room: tiers by billing, and src/tiers/store/tiers.ts',
    'src/billing/store/climb-23.ts',
    'export const end = `DELETE FROM tiers`;\n',
  ],
  [
    'a store reads no table of a later room: holdings of billing in src/tiers/store/climb-25.ts',
    'src/tiers/store/climb-25.ts',
    'export const all = `SELECT 1 FROM tiers JOIN holdings h ON true`;\n',
  ],
];

function check(): { found: string[]; status: number | null } {
  const script = path.resolve('scripts/check-imports.ts');
  const ran = spawnSync(process.execPath, ['--import', import.meta.resolve('tsx'), script], {
    cwd: root,
    encoding: 'utf8',
  });
  return { found: (ran.stderr + ran.stdout).trim().split('\n'), status: ran.status };
}

let breached: ReturnType<typeof check>;
beforeAll(() => {
  for (const [file, text] of Object.entries(HOUSE)) plant(file, text);
  symlinkSync(path.resolve('node_modules'), path.join(root, 'node_modules'));
}, 60_000);

it('finds nothing in a house that is in order, and then all that is planted', () => {
  expect(check()).toEqual({ found: [`Rooms: 15 modules, none against the order.`], status: 0 });
  for (const [, file, text] of [...CLIMBS, ...SQL]) plant(file, text);
  breached = check();
  expect(breached.status).toBe(1);
  // It starts a process twice, which takes its time while everything else is tested too.
}, 60_000);

it.each(CLIMBS)('%s: an import in %s is found', (rule, file) => {
  expect(breached.found.filter((breach) => breach.startsWith(`${rule}: ${file} → `))).toHaveLength(1);
});

it.each(SQL)('%s', (breach) => {
  expect(breached.found).toContain(breach);
});
