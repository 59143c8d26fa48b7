/** Measured comparisons, each in one run: npm run bench -- NAME [ARGUMENTS] */
const BENCHES: Record<string, () => Promise<{ run: (args: string[]) => void | Promise<void> }>> = {
  decide: () => import('./decide'),
  impact: () => import('./impact'),
  map: () => import('./map'),
  members: () => import('./members'),
  'member-imports': () => import('./member-imports'),
  crowd: () => import('./crowd'),
  lists: () => import('./lists'),
  imports: () => import('./imports'),
  pages: () => import('./pages'),
  lives: () => import('./lives'),
  renewals: () => import('./renewals'),
  schedules: () => import('./schedules'),
};

export {};

const [name = '', ...args] = process.argv.slice(2);
const load = BENCHES[name];
if (!load) {
  console.error(`Which? npm run bench -- ${Object.keys(BENCHES).join(' | ')}`);
  process.exit(1);
}
await (await load()).run(args);
