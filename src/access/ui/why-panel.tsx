import clsx from 'clsx';
import { Link } from '@/kit/link';
import { Fragment } from 'react';
import type { RuleReason } from '@/core/access/explain';
import { offerPrice } from '@/words/offers';
import type { Words } from '@/words/speak';
import { Button, buttonClass } from '@/kit/button';
import { TierName } from '@/kit/key-cut';
import { StateMark } from '@/kit/state-mark';
import { desk } from '@/words/desk';
import { coverWords, whenWords, whoWords } from './rule-words';
import { layerWords, lineWords, stateWord, whySentence, type ShownWhy } from './why-words';

type Props = { why: ShownWhy; t: Words; mayChange: boolean };

/** Explains one decision: what decides, what was not looked at, what would open it, and where to change it. */
export function WhyPanel({ why, t, mayChange }: Props) {
  const { explanation, rules, names, opening, item } = why;
  const decision = why.offered ?? explanation.decision;
  const { deciding, required, notReached, excepted } = explanation;
  const ruleLink = (id: string) =>
    mayChange ? (
      <Link href={`/desk/access/${id}`} className="font-semibold hover:underline">
        “{rules[id]?.name ?? id}”
      </Link>
    ) : (
      <b>“{rules[id]?.name ?? id}”</b>
    );
  const reason = ({ rule, layer, lines }: RuleReason) => (
    <li key={rule}>
      <p>
        {ruleLink(rule)}{' '}
        <span className="text-muted">
          {layerWords(layer)}: {rules[rule]?.covers.map((cover) => coverWords(cover, names)).join(', ')}
        </span>
      </p>
      <ul className="mt-1.5 grid gap-1">
        {lines.map((line, n) => (
          <li
            key={n}
            className={clsx(
              'grid grid-cols-[1fr_auto] gap-x-3 border-l-2 pl-3',
              line.isTheirs ? 'border-brass' : 'border-line text-muted',
            )}
          >
            <span>
              {whoWords(line.line, names)}
              {whenWords(line.line, names) && ` (${whenWords(line.line, names)})`}
            </span>
            <span className={clsx('figures text-right', line.isTheirs && 'font-semibold')}>
              {lineWords(line, t)}
            </span>
          </li>
        ))}
        {lines.length === 0 && <li className="pl-3 text-muted">{desk('desk-access.nobody')}</li>}
      </ul>
    </li>
  );
  return (
    <div className="mt-3 grid gap-5">
      <div>
        <p className="text-muted">
          {why.on
            ? desk('desk-access.seen-by-on', { who: why.viewpointName, date: t.dateTime(why.at) })
            : desk('desk-access.seen-by', { who: why.viewpointName })}
        </p>
        <div className="mt-2 w-40">
          <StateMark state={decision.state} words={stateWord(decision)} />
        </div>
        <p className="mt-3 text-lg leading-snug">{whySentence(why, t)}</p>
      </div>
      {deciding.length > 0 && (
        <Part title={desk('desk-access.what-decides')}>
          <ul className="grid gap-3">{deciding.map(reason)}</ul>
        </Part>
      )}
      {required.length > 0 && (
        <Part title={desk('desk-access.must-be-open-as-well')}>
          <ul className="grid gap-3">{required.map(reason)}</ul>
        </Part>
      )}
      {(notReached.length > 0 || excepted.length > 0) && (
        <Part title={desk('desk-access.not-looked-at')}>
          <ul className="grid gap-1">
            {notReached.map(({ rule, layer }) => (
              <li key={rule}>
                {ruleLink(rule)} <span className="text-muted">{layerWords(layer)}</span>
              </li>
            ))}
            {excepted.map((rule) => (
              <li key={rule}>
                {ruleLink(rule)} <span className="text-muted">{desk('desk-access.excepts-it')}</span>
              </li>
            ))}
          </ul>
        </Part>
      )}
      {why.openWeek && (
        <p className="mt-4 rounded-md bg-open-wash px-3 py-2 text-open">
          {desk('desk-access.open-week-now', {
            tier: why.names[`tier:${why.openWeek.tier}`] ?? why.openWeek.tier,
            date: t.until(why.openWeek.to),
          })}
        </p>
      )}
      {why.orders.length > 0 && (
        <Part title={desk('desk-access.given-by-orders')}>
          <ul className="grid gap-1">
            {why.orders.map(({ number, name, until }) => (
              <li key={number} className="[overflow-wrap:anywhere]">
                {until
                  ? desk('desk-access.by-order-until', { name, number, date: t.until(until) })
                  : desk('desk-access.by-order', { name, number })}
              </li>
            ))}
          </ul>
        </Part>
      )}
      {why.doorstep !== undefined && !why.isDraft && (
        <Part title={desk('desk-access.doorstep')}>
          <p>
            {desk('desk-access.doorstep-met', {
              by: why.doorstep.by,
              rule: why.doorstep.name,
              who: desk(`desk-access.asker-${why.doorstep.asker}`),
            })}
          </p>
        </Part>
      )}
      {opening.length > 0 && (
        <Part title={desk('desk-access.what-would-open-it')}>
          <ul className="grid gap-1.5">
            {opening.map(({ tier, offers, at }) => (
              <li key={tier.id} className="flex flex-wrap items-baseline justify-between gap-x-3">
                <TierName cut={tier.keyCut} name={tier.name} />
                <span className="figures text-muted">
                  {offers.map((offer, n) => (
                    <Fragment key={offer.id}>
                      {n > 0 && ' · '}
                      {offerPrice(offer.definition, t)}
                    </Fragment>
                  ))}
                  {at === 'later' && ` · ${desk('desk-access.after-a-wait')}`}
                </span>
              </li>
            ))}
          </ul>
        </Part>
      )}
      <div className="flex flex-wrap gap-2 border-t border-line pt-4">
        <form action="/look" method="post">
          <input type="hidden" name="as" value={why.viewpoint} />
          <input type="hidden" name="on" value={why.on ?? ''} />
          <input type="hidden" name="to" value={item.path} />
          <Button type="submit" look="quiet">
            {desk('desk-access.look-at-it')}
          </Button>
        </form>
        {mayChange && (
          <Link href={`/desk/access/new?item=${item.id}`} className={buttonClass('quiet')}>
            {desk('desk-access.a-rule-for-this-alone')}
          </Link>
        )}
        <Link href={`/desk/content/items/${item.id}`} className={buttonClass('quiet')}>
          {desk('desk-access.open-the-text')}
        </Link>
      </div>
    </div>
  );
}

function Part({ title, children }: { title: string; children: React.ReactNode }) {
  return (
    <section>
      <h3 className="mb-1.5 text-[0.9375rem] font-semibold text-muted">{title}</h3>
      {children}
    </section>
  );
}
