import type { Asker } from '@/core/access/asker';
import type { Explanation, LineReason, RuleReason } from '@/core/access/explain';
import type { Cover } from '@/core/access/rule';
import type { Instant, LocalDate } from '@/core/instants';
import type { KeyCut } from '@/core/key-cut';
import type { Offer } from '@/core/offers/offer';
import { LAYERS } from '@/core/access/layers';
import type { Decision } from '@/core/access/decide';
import { desk } from '@/words/desk';
import type { Words } from '@/words/speak';
import { whoWords, type Names } from './rule-words';

/** A decision with all that is needed to say why. */
export type ShownWhy = {
  item: { id: string; title: string; path: string };
  /** Not published then. */
  isDraft: boolean;
  viewpoint: string;
  viewpointName: string;
  on: LocalDate | null;
  at: Instant;
  explanation: Explanation;
  /** What is decided instead, because of an item that offers it. */
  offered: Decision | null;
  rules: Record<string, { name: string; covers: Cover[] }>;
  names: Names;
  /** Whose doorstep is met, and as whom; undefined where they are let in. */
  doorstep: { by: 'item' | 'rule' | 'site'; name: string; asker: Asker } | undefined;
  /** Where everyone reads as holders of a tier then: its name, and until when. */
  openWeek: { tier: string; to: Instant } | null;
  /** What a member holds then because another program said so. */
  orders: { number: string; name: string; until: Instant | null }[];
  opening: {
    tier: { id: string; name: string; keyCut: KeyCut };
    offers: { id: string; definition: Offer }[];
    at: 'once' | 'later';
  }[];
};

const ruleName = ({ rules }: ShownWhy, id: string): string => rules[id]?.name ?? id;
const listed = (t: Words, words: string[]): string => t.list(words);

/** Whom rules open to, each named once. */
const opensTo = (why: ShownWhy, reasons: RuleReason[], t: Words): string => {
  const whos = reasons.flatMap(({ lines }) => lines.map(({ line }) => whoWords(line, why.names)));
  return whos.length === 0 ? desk('desk-access.nobody') : listed(t, [...new Set(whos)]);
};

/** The answer to “why?”, in one sentence. */
export function whySentence(why: ShownWhy, t: Words): string {
  const { explanation, viewpointName: who } = why;
  const { decision, deciding, required } = explanation;
  if (why.isDraft) return desk('desk-access.why-draft');
  if (why.offered) return desk('desk-access.why-offered', { state: why.offered.state });
  if (decision.by === 'system') return desk('desk-access.why-system');
  if (decision.by === 'staff') return desk('desk-access.why-staff', { who });
  const narrowing = required.filter(({ verdict }) => verdict.state !== 'open');
  if (narrowing.length > 0)
    return desk('desk-access.why-narrowed', {
      rules: listed(
        t,
        narrowing.map(({ rule }) => `“${ruleName(why, rule)}”`),
      ),
      count: narrowing.length,
    });
  if (decision.by === 'default')
    return decision.state === 'open'
      ? desk('desk-access.why-default-open', { to: explanation.default ?? 'everyone' })
      : desk('desk-access.why-default-closed', { to: explanation.default ?? 'everyone' });
  const rules = listed(
    t,
    deciding.map(({ rule }) => `“${ruleName(why, rule)}”`),
  );
  // Of several lines that wait, the first to open speaks; of several that have ended, the last to close.
  const isDeciding = ({ state, opensAt, closesAt }: LineReason): boolean =>
    state === decision.state &&
    (state !== 'later' || opensAt === decision.opensAt) &&
    (state !== 'ended' || closesAt === decision.endedAt);
  const theirs = deciding.flatMap(({ lines }) => lines.filter(isDeciding));
  const to = listed(t, [...new Set(theirs.map(({ line }) => whoWords(line, why.names)))]);
  switch (decision.state) {
    case 'open':
      return desk('desk-access.why-open', { rules, to, count: deciding.length });
    case 'metered':
      return desk('desk-access.why-metered', { rules, left: decision.left ?? 0 });
    case 'later':
      return desk('desk-access.why-later', {
        rules,
        to,
        count: deciding.length,
        date: decision.opensAt ? t.dateTime(decision.opensAt) : '',
      });
    case 'ended':
      return desk('desk-access.why-ended', {
        rules,
        to,
        count: deciding.length,
        date: decision.endedAt ? t.dateTime(decision.endedAt) : '',
      });
    case 'closed':
      return desk('desk-access.why-closed', {
        rules,
        to: opensTo(why, deciding, t),
        count: deciding.length,
      });
  }
}

/** What one line of a rule says to the person. */
export function lineWords(
  { isTheirs, state, opensAt, closesAt, countsFromNothing }: LineReason,
  t: Words,
): string {
  if (!isTheirs) return desk('desk-access.line-not-theirs');
  if (countsFromNothing) return desk('desk-access.line-counts-from-nothing');
  if (state === 'open' && closesAt)
    return desk('desk-access.line-open-until', { date: t.dateTime(closesAt) });
  if (state === 'open' && opensAt) return desk('desk-access.line-open-since', { date: t.dateTime(opensAt) });
  if (state === 'open') return desk('desk-access.line-open');
  if (state === 'later' && opensAt) return desk('desk-access.line-later', { date: t.dateTime(opensAt) });
  if (state === 'ended' && closesAt) return desk('desk-access.line-ended', { date: t.dateTime(closesAt) });
  return desk('desk-access.line-never');
}

/** By what a rule covers the item, as a layer. */
export const layerWords = ([rank]: readonly [number, number]): string =>
  desk(`desk-access.layer-${LAYERS[rank] ?? 'site'}`);

export function stateWord({ state }: Pick<Decision, 'state'>): string {
  return desk(`desk-access.state-${state}`);
}
