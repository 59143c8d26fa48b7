/** The direction of imports: app → services → core, store, gateways, mail; core knows nobody; ui never reaches the database. */
import { readdirSync } from 'node:fs';
import { cruise, type ICruiseResult, type IForbiddenRuleType } from 'dependency-cruiser';

const only = (name: string, from: string, allowed: string[]): IForbiddenRuleType => ({
  name,
  severity: 'error',
  from: { path: `^src/${from}/` },
  to: { path: '^src/', pathNot: [...allowed.map((folder) => `^src/${folder}(/|\\.ts$)`), `^src/${from}/`] },
});

const onlyUseCases = (name: string, from: string, allowed: string[]): IForbiddenRuleType => ({
  name,
  severity: 'error',
  from: { path: `^src/${from}/` },
  to: {
    path: '^src/(billing/|checkout/|platform/)?(services/lib|store)/',
    pathNot: allowed.map((file) => `^src/${file}$`),
    dependencyTypesNot: ['type-only'],
  },
});

const RULES: IForbiddenRuleType[] = [
  only('core imports nothing but itself', 'core', []),
  {
    name: 'core brings no packages but zod, temporal and a hash',
    severity: 'error',
    from: { path: '^src/core/', pathNot: '\\.test\\.ts$' },
    to: {
      dependencyTypes: ['npm', 'npm-dev', 'core'],
      pathNot: 'node_modules/(zod|temporal-polyfill|@noble/hashes)/',
    },
  },
  only('platform imports core and config', 'platform', ['core', 'config']),
  only('store imports core, config and the database', 'store', ['core', 'config', 'platform/store']),
  only('gateways import core, the types of a site and config', 'gateways', [
    'core',
    'config',
    'platform/store/site',
  ]),
  only('mail imports core and config', 'mail', ['core', 'config']),
  only('services import everything but the interface', 'services', [
    'core',
    'platform',
    'store',
    'gateways',
    'mail',
    'config',
    'billing',
    'checkout',
  ]),
  only('billing imports what it is built on, and nothing of checkout', 'billing', [
    'core',
    'platform',
    'store',
    'services/lib',
    'gateways',
    'mail',
    'config',
  ]),
  only('checkout imports billing, and what that is built on', 'checkout', [
    'core',
    'platform',
    'store',
    'services/lib',
    'billing',
    'gateways',
    'mail',
    'config',
  ]),
  only('the web server imports platform and config', 'web', ['platform', 'config']),
  only('the worker imports services and mail', 'worker', [
    'platform',
    'services',
    'billing/services',
    'checkout/services',
    'store',
    'mail',
    'config',
  ]),
  onlyUseCases('a route calls use cases, and nothing below them but types', 'app', []),
  onlyUseCases('the worker calls use cases, and closes the pool', 'worker', ['platform/store/db.ts']),
  only('ui imports core', 'ui', ['core']),
  {
    name: 'SQL only in a store',
    severity: 'error',
    from: { path: '^src/', pathNot: ['^src/store/', '^src/[a-z]+/store/'] },
    to: { path: 'node_modules/pg/' },
  },
  { name: 'no circles', severity: 'error', from: { path: '^src/' }, to: { circular: true } },
];

const { output } = await cruise(['src'], {
  ruleSet: { forbidden: RULES },
  validate: true,
  tsPreCompilationDeps: true,
  tsConfig: { fileName: 'tsconfig.json' },
  doNotFollow: { path: 'node_modules' },
  exclude: { path: '\\.(css|svg|json)$' },
});
const result = output as ICruiseResult;
const read = result.modules.filter((module) => module.source.startsWith('src/')).length;
const present = readdirSync('src', { recursive: true, encoding: 'utf8' }).filter(
  (file) => /\.tsx?$/.test(file) && !file.endsWith('.d.ts'),
).length;
for (const violation of result.summary.violations)
  console.error(`${violation.rule.name}: ${violation.from} → ${violation.to}`);
if (read < present) console.error(`Only ${read} of ${present} files were read: the check cannot be trusted.`);
if (result.summary.violations.length > 0 || read < present) process.exit(1);
console.log(`Imports: ${read} modules, none against the direction.`);
