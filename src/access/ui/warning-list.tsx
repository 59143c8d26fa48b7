import { TriangleAlert } from 'lucide-react';
import { Link } from '@/kit/link';
import type { Warning } from '@/core/access/warnings';
import { desk } from '@/words/desk';

export type WarningNames = Record<'rules' | 'tiers' | 'items', Record<string, string>>;
type Props = { warnings: Warning[]; names: WarningNames; mayChange: boolean };
type Way = { words: string; href: string };

/** What an owner should look at, each with a way to mend it. */
export function WarningList({ warnings, names, mayChange }: Props) {
  if (warnings.length === 0) return null;
  return (
    <section aria-label={desk('desk-access.to-look-at')} className="mb-4">
      <h2 className="flex items-center gap-2 text-lg text-metered">
        <TriangleAlert className="size-5" aria-hidden />
        {desk('desk-access.warnings', { count: warnings.length })}
      </h2>
      <ul className="mt-2 divide-y divide-line rounded-card border border-l-4 border-line border-l-metered bg-surface">
        {warnings.map((warning, n) => {
          const { words, ways } = told(warning, names);
          return (
            <li key={n} className="flex flex-wrap items-baseline justify-between gap-x-6 gap-y-1 px-4 py-2.5">
              <span className="max-w-prose">{words}</span>
              {mayChange && (
                <span className="flex flex-wrap gap-x-4">
                  {ways.map((way) => (
                    <Link key={way.href} href={way.href} className="text-spruce underline">
                      {way.words}
                    </Link>
                  ))}
                </span>
              )}
            </li>
          );
        })}
      </ul>
    </section>
  );
}

/** A warning as a sentence, and the pages on which it can be mended. */
function told(warning: Warning, names: WarningNames): { words: string; ways: Way[] } {
  // A rule that is named by its item has quotation marks of its own.
  const rule = (id: string): string => (names.rules[id] ?? id).replace(/^“(.*)”$/, '$1');
  const editRule = (id: string): Way => ({
    words: desk('desk-access.edit-rule', { rule: rule(id) }),
    href: `/desk/access/${id}`,
  });
  const some = (items: string[], count: number): string =>
    items.map((id) => `“${names.items[id] ?? id}”`).join(', ') + (count > items.length ? ' …' : '');
  const tier = (id: string): string => names.tiers[id] ?? id;
  switch (warning.kind) {
    case 'covers-nothing':
      return {
        words: desk('desk-access.warn-covers-nothing', { rule: rule(warning.rule) }),
        ways: [editRule(warning.rule)],
      };
    case 'never-reached':
      return {
        words: desk('desk-access.warn-never-reached', {
          rule: rule(warning.rule),
          by: warning.by.map((id) => `“${rule(id)}”`).join(', '),
        }),
        ways: [editRule(warning.rule), ...warning.by.slice(0, 2).map(editRule)],
      };
    case 'tier-opens-nothing':
      return {
        words: desk('desk-access.warn-tier-opens-nothing', { tier: tier(warning.tier) }),
        ways: [{ words: desk('desk-access.open-more-to-it'), href: `/desk/access/new?tier=${warning.tier}` }],
      };
    case 'nobody':
      return {
        words: desk('desk-access.warn-nobody', {
          count: warning.count,
          some: some(warning.items, warning.count),
        }),
        ways: warning.rules.map(editRule),
      };
    case 'meet':
      return {
        words: desk('desk-access.warn-meet', {
          one: rule(warning.rules[0]),
          other: rule(warning.rules[1]),
          count: warning.count,
          some: some(warning.items, warning.count),
        }),
        ways: warning.rules.map(editRule),
      };
    case 'system-page':
      return {
        words: desk('desk-access.warn-system-page', {
          rule: rule(warning.rule),
          some: some(warning.items, warning.items.length),
        }),
        ways: [editRule(warning.rule)],
      };
    case 'too-long':
      return {
        words: desk('desk-access.warn-too-long', { rule: rule(warning.rule), tier: tier(warning.tier) }),
        ways: [
          editRule(warning.rule),
          {
            words: desk('desk-access.edit-tier', { tier: tier(warning.tier) }),
            href: `/desk/tiers/${warning.tier}`,
          },
        ],
      };
  }
}
