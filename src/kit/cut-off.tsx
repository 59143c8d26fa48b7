import { formatCount } from '@/core/money';

/** Says that a list is longer than what is shown of it. `which`: the end that is shown, like "newest" or "next". */
export function CutOff({ shown, total, which }: { shown: number; total: number; which: string }) {
  if (total <= shown) return null;
  return (
    <p className="figures mt-3 text-muted">
      The {which} {formatCount(shown)} of {formatCount(total)} are shown.
    </p>
  );
}
