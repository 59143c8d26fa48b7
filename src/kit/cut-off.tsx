import type { Words } from '@/words/speak';

/** Says that a list is longer than what is shown of it. `which`: the end that is shown, like "newest" or "next". */
export function CutOff({
  shown,
  total,
  which,
  t,
}: {
  shown: number;
  total: number;
  which: 'newest' | 'next' | 'first';
  t: Words;
}) {
  if (total <= shown) return null;
  return <p className="figures mt-3 text-muted">{t('desk.list-cut', { which, shown, total })}</p>;
}
