import { formatDate, type Instant } from '@/core/instants';
import { formatMoney } from '@/core/money';

export function NextCharge({
  next,
  zone,
}: {
  next: { at: Instant; amount: number; currency: string } | null;
  zone: string;
}) {
  if (!next) return <span className="text-muted">none</span>;
  return (
    <span className="whitespace-nowrap">
      <b className="font-semibold">{formatMoney(next.amount, next.currency)}</b> on{' '}
      {formatDate(next.at, zone)}
    </span>
  );
}
