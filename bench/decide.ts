/**
 * The same rules and questions in our core and in three general-purpose authorisation libraries, in one run: 20 categories, 5
 * tiers, 1,000 posts. Rules that all four can express: no meters, no dates. npm run bench -- decide [seconds]
 */
import { spawnSync } from 'node:child_process';
import { createRequire } from 'node:module';
import { createMongoAbility, subject, type MongoAbility } from '@casl/ability';
import { newEnforcer, newModelFromString } from 'casbin';
import type * as Cedar from '@cedar-policy/cedar-wasm/nodejs';
import { compileRules } from '../src/core/access/compile';
import { decide } from '../src/core/access/decide';
import { explain } from '../src/core/access/explain';
import type { ItemFacts, PersonFacts } from '../src/core/access/facts';
import type { Rule } from '../src/core/access/rule';

const NOW = '2027-01-31T15:00:00Z';
const TIERS = ['gazer', 'observer', 'warden', 'mirror', 'founder'];
const CATEGORIES = Array.from({ length: 20 }, (_, n) => `c${n}`);
/** Which tiers open a category: one, two or three of them. */
const opensTo = (n: number): string[] => TIERS.filter((_, at) => (at + n) % 5 < 1 + (n % 3));

const rules: Rule[] = CATEGORIES.map((id, n) => ({
  id,
  covers: [{ kind: 'category', id }],
  openTo: opensTo(n).map((tier) => ({ who: { kind: 'tier', id: tier } })),
}));
const posts: ItemFacts[] = Array.from({ length: 1000 }, (_, n) => ({
  id: `p${n}`,
  type: 'post',
  path: `/posts/p${n}`,
  ancestors: [],
  // Some are in two.
  categories: n % 4 === 0 ? [`c${n % 20}`, `c${(n + 7) % 20}`] : [`c${n % 20}`],
  tags: [],
  publishedAt: NOW,
}));
const people: { id: string; tiers: string[] }[] = [
  { id: 'visitor', tiers: [] },
  ...TIERS.map((tier) => ({ id: tier, tiers: [tier] })),
  { id: 'both', tiers: ['gazer', 'mirror'] },
];

type Contender = { name: string; ask: (person: number, post: number) => boolean };

function ours(name: string, answer: typeof decide): Contender {
  const covering = compileRules(rules);
  const facts = people.map(({ tiers }): PersonFacts => ({
    signedIn: tiers.length > 0,
    joinedAt: NOW,
    tiers: tiers.map((tier) => ({ tier, since: NOW, paid: true })),
    passes: [],
    groups: [],
  }));
  return {
    name,
    ask: (person, post) => {
      const who = facts[person];
      const item = posts[post];
      if (!who || !item) return false;
      return (
        answer({
          now: NOW,
          zone: 'Europe/London',
          default: 'everyone',
          rules: covering(item),
          item,
          person: who,
        }).state === 'open'
      );
    },
  };
}

function casl(): Contender {
  const abilities = people.map(({ tiers }): MongoAbility => {
    const open = CATEGORIES.filter((_, n) => opensTo(n).some((tier) => tiers.includes(tier)));
    return createMongoAbility([
      { action: 'read', subject: 'Post', conditions: { categories: { $in: open } } },
    ]);
  });
  const subjects = posts.map((post) => subject('Post', { ...post }));
  return {
    name: '@casl/ability',
    ask: (person, post) => abilities[person]?.can('read', subjects[post] as never) ?? false,
  };
}

async function casbin(): Promise<Contender> {
  const model = newModelFromString(`
[request_definition]
r = sub, obj
[policy_definition]
p = sub, obj
[role_definition]
g = _, _
g2 = _, _
[policy_effect]
e = some(where (p.eft == allow))
[matchers]
m = g(r.sub, p.sub) && g2(r.obj, p.obj)
`);
  const enforcer = await newEnforcer(model);
  await enforcer.addPolicies(CATEGORIES.flatMap((id, n) => opensTo(n).map((tier) => [`tier-${tier}`, id])));
  await enforcer.addNamedGroupingPolicies(
    'g',
    people.flatMap(({ id, tiers }) => tiers.map((tier) => [id, `tier-${tier}`])),
  );
  await enforcer.addNamedGroupingPolicies(
    'g2',
    posts.flatMap(({ id, categories }) => categories.map((category) => [id, category])),
  );
  return {
    name: 'casbin',
    ask: (person, post) => enforcer.enforceSync(people[person]?.id, posts[post]?.id),
  };
}

function cedar(): Contender {
  const cedarWasm = createRequire(import.meta.url)('@cedar-policy/cedar-wasm/nodejs') as typeof Cedar;
  const policies = CATEGORIES.flatMap((id, n) =>
    opensTo(n).map(
      (tier) =>
        `permit(principal in Tier::"${tier}", action == Action::"read", resource in Category::"${id}");`,
    ),
  );
  cedarWasm.preparsePolicySet('rules', { staticPolicies: policies.join('\n') });
  const uid = (type: string, id: string) => ({ type, id });
  const who = people.map(({ id, tiers }) => ({
    uid: uid('Person', id),
    attrs: {},
    parents: tiers.map((tier) => uid('Tier', tier)),
  }));
  const what = posts.map(({ id, categories }) => ({
    uid: uid('Post', id),
    attrs: {},
    parents: categories.map((category) => uid('Category', category)),
  }));
  return {
    name: '@cedar-policy/cedar-wasm',
    ask: (person, post) => {
      const [principal, resource] = [who[person], what[post]];
      if (!principal || !resource) return false;
      const answer = cedarWasm.statefulIsAuthorized({
        principal: principal.uid,
        action: uid('Action', 'read'),
        resource: resource.uid,
        context: {},
        preparsedPolicySetId: 'rules',
        entities: [principal, resource],
      });
      return answer.type === 'success' && answer.response.decision === 'allow';
    },
  };
}

/** Questions answered in a second, of all persons about all posts in turn. */
function speedOf({ ask }: Contender, seconds: number): number {
  let [answers, n] = [0, 0];
  const begun = performance.now();
  const end = begun + seconds * 1000;
  while (performance.now() < end)
    for (let k = 0; k < 20; k++, answers++, n++) ask(n % people.length, (n * 7) % posts.length);
  return answers / ((performance.now() - begun) / 1000);
}

/** Each is timed in a process of its own: what the engine learns of one would slow down another. */
function timed(name: string, seconds: number): number {
  const { stdout } = spawnSync(
    process.execPath,
    [...process.execArgv, process.argv[1] ?? '', 'decide', String(seconds), name],
    { encoding: 'utf8', maxBuffer: 1_000_000 },
  );
  return Number(stdout.trim().split('\n').at(-1));
}

export async function run([typed = '9', only]: string[]): Promise<void> {
  const seconds = Number(typed);
  const contenders = [
    ours('Nest Key', decide),
    ours('Nest Key, with Why', (question) => explain(question).decision),
    casl(),
    await casbin(),
    cedar(),
  ];
  if (only !== undefined) {
    const contender = contenders.find(({ name }) => name === only);
    if (contender) console.log(speedOf(contender, seconds));
    return;
  }
  const open = compared(contenders);
  console.log(`${people.length * posts.length} questions, ${open} of them open; all five answer the same.`);
  const speeds = new Map<string, number>();
  // In turns, so that what else the machine does meets all of them.
  for (let round = 0; round < 3; round++)
    for (const { name } of contenders)
      speeds.set(name, Math.max(timed(name, seconds / 3), speeds.get(name) ?? 0));
  const fastest = Math.max(...contenders.slice(2).map(({ name }) => speeds.get(name) ?? 0));
  for (const { name } of contenders) {
    const speed = speeds.get(name) ?? 0;
    console.log(
      `${name.padEnd(28)} ${Math.round(speed).toLocaleString('en-GB').padStart(12)} a second   ${(speed / fastest).toFixed(2)} of the fastest library`,
    );
  }
}

/** Asks all of them everything. @returns how much is open; throws where one answers otherwise */
function compared([first, ...others]: Contender[]): number {
  let open = 0;
  for (let person = 0; person < people.length; person++)
    for (let post = 0; post < posts.length; post++) {
      const answer = first?.ask(person, post) ?? false;
      if (answer) open++;
      for (const other of others)
        if (other.ask(person, post) !== answer)
          throw new Error(`${other.name} answers otherwise: ${person}, ${post}`);
    }
  return open;
}
