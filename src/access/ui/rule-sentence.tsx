import clsx from 'clsx';
import { Link } from '@/kit/link';
import { Fragment } from 'react';
import type { Rule } from '@/core/access/rule';
import type { KeyCut } from '@/core/key-cut';
import { TierName } from '@/kit/key-cut';
import { coverWords, isOn, seriesWords, whenWords, whoWords, type Names } from './rule-words';
import { desk } from '@/words/desk';

type Props = {
  rule: Rule & { name: string };
  names: Names;
  tiers: { id: string; keyCut: KeyCut }[];
  meters: { id: string; name: string }[];
};

/** A rule as a sentence. */
export function RuleSentence({ rule, names, tiers, meters }: Props) {
  const meter = meters.find(({ id }) => id === rule.meter);
  const listed = (covers: Rule['covers']): string =>
    covers.map((cover) => coverWords(cover, names)).join(', ');
  return (
    <li className={clsx('rounded-card border border-line bg-surface p-4', !isOn(rule) && 'opacity-75')}>
      <div className="flex items-baseline justify-between gap-3">
        <h3 className="text-lg">
          <Link href={`/desk/access/${rule.id}`} className="hover:underline">
            {rule.name}
          </Link>
        </h3>
        {!isOn(rule) && (
          <span className="text-sm font-semibold text-ended">{desk('desk-access.switched-off')}</span>
        )}
      </div>
      <p className="mt-1">
        {rule.except && rule.except.length > 0
          ? desk('desk-access.rule-covers-but-not', {
              covers: listed(rule.covers),
              except: listed(rule.except),
            })
          : desk('desk-access.rule-covers', { covers: listed(rule.covers) })}
      </p>
      <p className="mt-1">
        {rule.alsoRequire ? desk('desk-access.rule-also-requires') : desk('desk-access.rule-opens-to')}{' '}
        {rule.openTo.length === 0 && desk('desk-access.nobody')}
        {rule.openTo.map((line, index) => {
          const { who } = line;
          const keyCut = who.kind === 'tier' ? tiers.find((tier) => tier.id === who.id)?.keyCut : undefined;
          const when = whenWords(line, names);
          return (
            <Fragment key={index}>
              {index > 0 && (index === rule.openTo.length - 1 ? ` ${desk('desk.and')} ` : ', ')}
              {keyCut ? <TierName cut={keyCut} name={whoWords(line, names)} /> : whoWords(line, names)}
              {when && ` (${when})`}
            </Fragment>
          );
        })}
        .{rule.each && ` ${seriesWords(rule)}`}
        {meter && ` ${desk('desk-access.rule-has-meter', { meter: meter.name })}`}
        {rule.listed === false && ` ${desk('desk-access.rule-hides')}`}
        {Boolean(rule.doorstep) && ` ${desk('desk-access.rule-has-doorstep')}`}
      </p>
    </li>
  );
}
