/**
 * How long an import of members takes, in the steps in which the Desk sends it, and what memory it holds: looked through,
 * brought in, and once more. npm run bench -- member-imports [how many lines]
 */
import { benchSite } from './lib/site';

/** Every third with a tier since a day, every second of those until another; every tenth with a note, every hundredth unreadable. */
const lineOf = (n: number): string[] =>
  n % 100 === 99
    ? [`person ${n}`, '', '', '', '', '']
    : [
        `m${n}@moor.example`,
        `Member ${n}`,
        n % 3 === 0 ? 'Observer' : '',
        n % 3 === 0 ? '2025-03-01' : '',
        n % 6 === 0 ? '2031-02-28' : '',
        n % 10 === 0 ? `Came by way of stall ${n % 7}` : '',
      ];

export async function run(args: string[]): Promise<void> {
  const count = Number(args[0] ?? 100_000);
  const site = await benchSite('http://127.0.0.1:9');
  try {
    const { importMembers } = await import('../src/members/services/import-members');
    const { LINES_AT_ONCE } = await import('../src/core/people/member-lines');
    const { SETUP } = await import('../src/platform/actor');
    const columns = ['email', 'name', 'tier', 'since', 'until', 'note'];
    console.log(`${count.toLocaleString('en-GB')} lines, ${LINES_AT_ONCE} at a time`);
    for (const [name, isDry] of [
      ['looked through', true],
      ['brought in', false],
      ['again', false],
    ] as const) {
      const started = performance.now();
      const sorts = new Map<string, number>();
      let longest = 0;
      for (let first = 0; first < count; first += LINES_AT_ONCE) {
        const before = performance.now();
        const lines = Array.from({ length: Math.min(LINES_AT_ONCE, count - first) }, (_, n) =>
          lineOf(first + n),
        );
        const report = await importMembers(SETUP, {
          first: first + 2,
          lines,
          columns,
          dates: 'year-first',
          isPaid: false,
          isDry,
        });
        if (!report.ok) throw new Error(JSON.stringify(report.problems));
        for (const { is } of report.value) sorts.set(is, (sorts.get(is) ?? 0) + 1);
        longest = Math.max(longest, performance.now() - before);
      }
      const seconds = (performance.now() - started) / 1000;
      console.log(
        `  ${name.padEnd(15)} ${seconds.toFixed(1).padStart(7)} s, ${Math.round(count / seconds)} lines a second, the longest step ${Math.round(longest)} ms, ` +
          `${Math.round(process.memoryUsage().rss / 1e6)} MB: ${[...sorts].map(([is, n]) => `${n} ${is}`).join(', ')}`,
      );
    }
  } finally {
    await site.close();
  }
}
