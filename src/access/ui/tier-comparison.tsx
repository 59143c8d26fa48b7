import { Check, Clock, Minus } from '@lucide/icons';
import { SiteIcon } from '@/kit/site-icon';
import type { ComparisonLine } from '@/core/access/what-opens';
import type { KeyCut } from '@/core/key-cut';
import type { Words } from '@/words/speak';
import { KeyGlyph } from '@/kit/key-cut';

type Props = {
  t: Words;
  tiers: { id: string; name: string; keyCut: KeyCut }[];
  lines: (ComparisonLine & { name: string })[];
};

/** What the tiers open, side by side: computed from the rules, so it never promises what a rule does not keep. */
export function TierComparison({ t, tiers, lines }: Props) {
  if (lines.length === 0 || tiers.length < 2) return null;
  return (
    <section className="mt-14" aria-labelledby="compare">
      <h2 id="compare" className="text-2xl">
        {t('join.compare')}
      </h2>
      <div className="mt-4 relative overflow-x-auto" tabIndex={0} role="region" aria-labelledby="compare">
        <table className="held-column figures w-full min-w-[42rem] text-[0.9375rem]">
          <thead>
            <tr>
              <th scope="col" className="py-2 pr-4 text-left font-semibold text-muted">
                {t('join.compare-head')}
              </th>
              {tiers.map((tier) => (
                <th key={tier.id} scope="col" className="px-2 py-2 align-bottom font-semibold">
                  <span className="flex flex-col items-center gap-1">
                    <KeyGlyph cut={tier.keyCut} size={16} />
                    {tier.name}
                  </span>
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {lines.map((line) => (
              <tr key={line.group} className="border-t border-line">
                <th scope="row" className="py-2.5 pr-4 text-left font-normal">
                  {line.name} <span className="text-muted">({line.total})</span>
                </th>
                {line.cells.map((cell) => (
                  <td key={cell.tier} className="px-2 py-2.5 text-center">
                    <Cell t={t} now={cell.now} later={cell.later} total={line.total} />
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </section>
  );
}

function Cell({ t, now, later, total }: { t: Words; now: number; later: number; total: number }) {
  if (now === total)
    return (
      <span className="inline-flex items-center gap-1 text-open">
        <SiteIcon icon={Check} className="size-4" aria-hidden /> {t('join.compare-all')}
      </span>
    );
  if (now + later === 0)
    return (
      <span className="text-muted">
        <SiteIcon icon={Minus} className="inline size-4" aria-hidden />
        <span className="sr-only">{t('join.compare-none')}</span>
      </span>
    );
  return (
    <span className="inline-flex flex-col items-center">
      {now > 0 && <span className="text-open">{t('join.opens-now', { count: now })}</span>}
      {later > 0 && (
        <span className="inline-flex items-center gap-1 text-later">
          <SiteIcon icon={Clock} className="size-4" aria-hidden />
          {later === total ? t('join.compare-all-later') : t('join.opens-later', { count: later })}
        </span>
      )}
    </span>
  );
}
