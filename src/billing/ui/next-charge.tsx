import type { Instant } from '@/core/instants';
import type { Words } from '@/words/speak';
import { Sentence } from '@/kit/sentence';
import { desk } from '@/words/desk';

export function NextCharge({
  next,
  t,
}: {
  next: { at: Instant; amount: number; currency: string } | null;
  t: Words;
}) {
  if (!next) return <span className="text-muted">{desk('desk.none')}</span>;
  return (
    <span className="whitespace-nowrap">
      <Sentence
        words={desk('desk-money.charge-on', {
          amount: t.money(next.amount, next.currency),
          date: t.date(next.at),
        })}
        parts={{ b: (words) => <b className="font-semibold">{words}</b> }}
      />
    </span>
  );
}
