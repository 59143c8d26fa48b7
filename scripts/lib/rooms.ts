/** Which part of the product may know which. `scripts/check-imports.ts` holds the tree against it; `rooms.test.ts` plants each breach. */
import { readdirSync, readFileSync } from 'node:fs';
import { cruise, type ICruiseResult, type IForbiddenRuleType } from 'dependency-cruiser';

/** The rooms, each standing on those before it. A room has `services`, `store` and `ui`. */
export const ROOMS = [
  'mail',
  'people',
  'content',
  'tiers',
  'billing',
  'documents',
  'access',
  'checkout',
  'members',
  'desk',
] as const;
/** What is under all rooms, and over all of them. */
const UNDER = ['core', 'words', 'platform', 'kit'];
const OVER = ['web', 'worker', 'app'];
const ANY_ROOM = `^src/(${ROOMS.join('|')})`;

const never = (name: string, from: string, to: string, but: string[] = []): IForbiddenRuleType => ({
  name,
  severity: 'error',
  from: { path: from, pathNot: ['\\.test\\.ts$'] },
  to: { path: to, pathNot: but },
});

/** What is in `from` imports nothing of `src` but what is named, and itself. */
const only = (name: string, from: string, ...allowed: string[]): IForbiddenRuleType =>
  never(name, `^src/${from}/`, '^src/', [`^src/${from}/`, ...allowed.map((place) => `^src/${place}`)]);

const RULES: IForbiddenRuleType[] = [
  ...ROOMS.map((room, at) =>
    never(
      `${room} knows no later room`,
      `^src/${room}/`,
      `^src/(${[...ROOMS.slice(at + 1), ...OVER].join('|')})/`,
    ),
  ),
  only('core knows nobody', 'core'),
  never('core brings no packages but zod, temporal and a hash', '^src/core/', 'node_modules/', [
    'node_modules/(zod|temporal-polyfill|@noble/hashes)/',
  ]),
  only('words know core', 'words', 'core/'),
  only('platform knows core and words', 'platform', 'core/', 'words/'),
  only('kit knows core and words', 'kit', 'core/', 'words/'),
  only(
    'the web server knows words, platform, and who asks',
    'web',
    'words/',
    'platform/',
    'people/services/',
    'access/services/',
  ),
  only('gateways know core, words and platform', 'billing/gateways', 'core/', 'words/', 'platform/'),
  {
    name: 'SQL only in a store',
    severity: 'error',
    from: { path: '^src/', pathNot: '/store/' },
    to: { path: 'node_modules/pg/' },
  },
  never('a store knows core, words, platform and stores', `${ANY_ROOM}/store/`, '^src/', [
    '^src/core/',
    '^src/words/',
    '^src/platform/',
    `${ANY_ROOM}/store/`,
  ]),
  never('ui knows core, words, kit and ui', `${ANY_ROOM}/ui/`, '^src/', [
    '^src/core/',
    '^src/words/',
    '^src/kit/',
    `${ANY_ROOM}/ui/`,
  ]),
  never('a route calls use cases, and nothing below them', '^src/app/', '^src/[a-z]+/(services/lib|store)/'),
  never(
    'the worker calls use cases, and closes the pool',
    '^src/worker/',
    '^src/[a-z]+/(services/lib|store)/',
    ['^src/platform/store/db'],
  ),
  { name: 'no circles', severity: 'error', from: { path: '^src/' }, to: { circular: true } },
];

/** All files below a folder of the working directory, in order. */
export const filesIn = (folder: string): string[] =>
  readdirSync(folder, { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile())
    .map((entry) => `${entry.parentPath}/${entry.name}`)
    .sort();

/** Breaches of the rules by imports in the working directory, each as "rule: from → to"; and how many modules were read. */
export async function importBreaches(): Promise<{ breaches: string[]; read: number }> {
  const { output } = await cruise(['src'], {
    ruleSet: { forbidden: RULES },
    validate: true,
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    doNotFollow: { path: 'node_modules' },
    // A folder can be called feed.json: it is the folder of a route.
    exclude: { path: '\\.(css|svg)$' },
  });
  const { summary, modules } = output as ICruiseResult;
  return {
    breaches: summary.violations.map(({ rule, from, to }) => `${rule.name}: ${from} → ${to}`),
    read: modules.filter((module) => module.source.startsWith('src/')).length,
  };
}

const WRITES = /\b(?:INSERT INTO|UPDATE|DELETE FROM)\s+([a-z_]+)/g;
const READS = /\b(?:FROM|JOIN)\s+([a-z_]+)/g;
const SQL = /[`'"(]\s*(?:SELECT\s+\S|INSERT INTO\s|UPDATE\s+[a-z_]+\s+SET\s|DELETE FROM\s)/;

/**
 * Breaches of the rules by SQL in the working directory: SQL outside a store, a table that two rooms write, a table of a later room that
 * is read. Tables are those that the migrations make.
 */
export function sqlBreaches(): string[] {
  const texts = (folder: string, ending: RegExp) =>
    filesIn(folder)
      .filter((file) => ending.test(file) && !/\.test\.tsx?$/.test(file))
      .map((file) => ({ file, text: readFileSync(file, 'utf8') }));
  const sources = texts('src', /\.tsx?$/);
  const migrations = texts('migrations', /\.sql$/).map(({ text }) => text.toLowerCase());
  const tables = new Set(
    migrations.flatMap((text) =>
      [...text.matchAll(/create table (?:if not exists )?([a-z_]+)|rename to ([a-z_]+)/g)].map(
        (found) => found[1] ?? found[2] ?? '',
      ),
    ),
  );
  const stores = sources
    .filter(({ file }) => file.includes('/store/'))
    .map((store) => ({ ...store, room: store.file.split('/')[1] ?? '' }));
  const named = (text: string, by: RegExp) =>
    [...text.matchAll(by)].map(([, table]) => table ?? '').filter((table) => tables.has(table));
  const breaches = sources
    .filter(({ file, text }) => !file.includes('/store/') && SQL.test(text))
    .map(({ file }) => `SQL only in a store: ${file}`);
  const writers = new Map<string, string>();
  for (const { file, room, text } of stores)
    for (const table of named(text, WRITES)) {
      const writer = writers.get(table) ?? room;
      writers.set(table, writer);
      if (writer !== room)
        breaches.push(`a table is written by one room: ${table} by ${writer}, and ${file}`);
    }
  const order = [...UNDER, ...ROOMS];
  for (const { file, room, text } of stores)
    for (const table of named(text, READS)) {
      const writer = writers.get(table);
      if (writer && order.indexOf(writer) > order.indexOf(room))
        breaches.push(`a store reads no table of a later room: ${table} of ${writer} in ${file}`);
    }
  return [...new Set(breaches)];
}
