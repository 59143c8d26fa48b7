import type { Instant } from '@/core/instants';
import type { Words } from '@/words/speak';

export function NextCharge({
  next,
  t,
}: {
  next: { at: Instant; amount: number; currency: string } | null;
  t: Words;
}) {
  if (!next) return <span className="text-muted">none</span>;
  return (
    <span className="whitespace-nowrap">
      <b className="font-semibold">{t.money(next.amount, next.currency)}</b> on {t.date(next.at)}
    </span>
  );
}
