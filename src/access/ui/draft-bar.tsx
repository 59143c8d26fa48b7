'use client';

import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import type { Rule } from '@/core/access/rule';
import { ActionForm, Draft, FormMessage, SubmitButton, undone, type FormAction } from '@/kit/action-form';
import { useToast } from '@/kit/surroundings';
import { Button } from '@/kit/button';
import { desk } from '@/words/desk';
import type { PaintedCell } from './map-data';
import { coverWords, whenWords, whoWords, type Names } from './rule-words';

type Some = { count: number; some: string[] };
/** What a draft would do; as the server works it out. */
export type DraftPreview = {
  stamp: string;
  changes: { id: string; name: string; before: Rule | null; after: Rule | null }[];
  names: Names;
  items: number;
  viewpoints: { name: string; opens: Some; closes: Some }[];
  members: { all: number; affected: number; gain: number; lose: number };
  notAsPainted: { target: string; as: string; to: 'open' | 'closed' | 'inherit'; rules: string[] }[];
};
export type PreviewDraft = (paints: PaintedCell[]) => Promise<DraftPreview | null>;
type Member = { id: string; name: string; email: string };
export type AskDraftMembers = (paints: PaintedCell[], which: 'gain' | 'lose') => Promise<Member[]>;

type Props = {
  paints: PaintedCell[];
  preview: PreviewDraft;
  members: AskDraftMembers;
  apply: FormAction;
  undo: FormAction;
  onDone: () => void;
  onDrop: () => void;
};

const PAUSE = 300;

/** At the foot of the map: what is painted and not applied yet, what it would do, and the way to apply or drop it. */
export function DraftBar({ paints, preview, members, apply, undo, onDone, onDrop }: Props) {
  const [found, setFound] = useState<{ paints: PaintedCell[]; draft: DraftPreview | null }>();
  const [isReviewed, setReviewed] = useState(false);
  useEffect(() => {
    let isWanted = true;
    const wait = setTimeout(() => {
      void preview(paints).then((draft) => isWanted && setFound({ paints, draft }));
    }, PAUSE);
    return () => {
      isWanted = false;
      clearTimeout(wait);
    };
  }, [paints, preview]);
  const [router, showToast] = [useRouter(), useToast()];
  const draft = found?.paints === paints ? found.draft : null;
  const applied: FormAction = async (state, form, drafts) => {
    const answer = await apply(state, form, drafts);
    const { undo: fields, message = '' } = answer;
    if (!fields) return answer;
    // The bar goes with the draft: what can be undone is told by the page.
    showToast(message, async () => {
      const words = await undone(undo, fields);
      router.refresh();
      return words;
    });
    onDone();
    return { problems: {} };
  };
  return (
    <section
      aria-label={desk('desk-access.draft')}
      className="sticky bottom-0 z-20 -mx-3 mt-3 rounded-t-xl bg-night px-5 py-3 text-on-night shadow-xl shadow-black/30"
      style={{ colorScheme: 'dark' }}
    >
      {isReviewed && draft && (
        <div className="mb-3 max-h-[42dvh] overflow-y-auto border-b border-on-night/25 pb-3">
          <Review draft={draft} paints={paints} members={members} />
        </div>
      )}
      <div className="flex flex-wrap items-center gap-x-5 gap-y-2">
        <p className="font-semibold">{desk('desk-access.draft-changes', { count: paints.length })}</p>
        <p role="status" className="figures text-on-night-soft">
          {draft
            ? [
                desk('desk-access.draft-sums', { items: draft.items, members: draft.members.affected }),
                draft.members.lose > 0 && desk('desk-access.draft-would-lose', { count: draft.members.lose }),
              ]
                .filter(Boolean)
                .join(' · ')
            : desk(found?.paints === paints ? 'desk-access.draft-not-worked-out' : 'desk-access.working-out')}
        </p>
        <div className="ml-auto flex flex-wrap items-center gap-3">
          <Button look="night" aria-expanded={isReviewed} onClick={() => setReviewed((is) => !is)}>
            {desk('desk-access.review')}
          </Button>
          <Button look="night" onClick={onDrop}>
            {desk('desk-access.drop-draft')}
          </Button>
          <ActionForm action={applied} className="flex items-center gap-3">
            <Draft name="draft" value={{ paints, stamp: draft?.stamp ?? '' }} />
            {draft ? (
              <SubmitButton busy={desk('desk.saving')} look="lamp">
                {desk('desk-access.apply-draft')}
              </SubmitButton>
            ) : (
              <Button look="lamp" disabled>
                {desk('desk-access.apply-draft')}
              </Button>
            )}
            <FormMessage onNight />
          </ActionForm>
        </div>
      </div>
    </section>
  );
}

function Review({ draft, paints, members }: { draft: DraftPreview } & Pick<Props, 'paints' | 'members'>) {
  const { names } = draft;
  const opensTo = ({ openTo }: Rule): string =>
    openTo
      .map((line) => [whoWords(line, names), whenWords(line, names)].filter(Boolean).join(' '))
      .join(', ') || desk('desk-access.nobody');
  const coversOf = ({ covers }: Rule): string => covers.map((cover) => coverWords(cover, names)).join(', ');
  return (
    <div className="grid gap-x-10 gap-y-4 lg:grid-cols-2">
      <div>
        <h2 className="text-lg">{desk('desk-access.draft-review')}</h2>
        <ul className="mt-2 grid gap-2">
          {draft.changes.map(({ id, name, before, after }) => (
            <li key={id}>
              <b>
                {desk(
                  !before
                    ? 'desk-access.rule-is-made'
                    : after
                      ? 'desk-access.rule-is-changed'
                      : 'desk-access.rule-is-deleted',
                  { rule: name },
                )}
              </b>{' '}
              {after && (!before || opensTo(before) !== opensTo(after)) && (
                <span>
                  {desk('desk-access.will-open-to', { to: opensTo(after) })}{' '}
                  {before && (
                    <span className="text-on-night-soft">
                      {desk('desk-access.before-that', { to: opensTo(before) })}
                    </span>
                  )}
                </span>
              )}
              {before && after && coversOf(before) !== coversOf(after) && (
                <span>
                  {' '}
                  {desk('desk-access.covers-from-to', { is: coversOf(after), was: coversOf(before) })}
                </span>
              )}
            </li>
          ))}
        </ul>
        {draft.notAsPainted.length > 0 && (
          <ul className="mt-3 grid gap-1 border-l-4 border-lamp pl-3">
            {draft.notAsPainted.map(({ target, as, to, rules }, n) => (
              <li key={n}>
                {desk(to === 'open' ? 'desk-access.stays-closed' : 'desk-access.stays-open', {
                  target,
                  who: as,
                  rules: rules.map((rule) => `“${rule}”`).join(', '),
                })}
              </li>
            ))}
          </ul>
        )}
      </div>
      <div>
        <ul className="grid gap-1">
          {draft.viewpoints.map(({ name, opens, closes }) => (
            <li key={name} className="grid gap-x-4 sm:grid-cols-[9rem_1fr]">
              <b>{name}</b>
              <span>
                {closes.count > 0 &&
                  `${desk('desk-access.closes-items', { count: closes.count, some: listed(closes) })} `}
                {opens.count > 0 &&
                  desk('desk-access.opens-items', { count: opens.count, some: listed(opens) })}
              </span>
            </li>
          ))}
        </ul>
        <div className="mt-3 grid gap-2">
          {draft.members.lose > 0 && (
            <Members which="lose" count={draft.members.lose} paints={paints} ask={members} />
          )}
          {draft.members.gain > 0 && (
            <Members which="gain" count={draft.members.gain} paints={paints} ask={members} />
          )}
        </div>
      </div>
    </div>
  );
}

const listed = ({ count, some }: Some): string =>
  some.map((title) => `“${title}”`).join(', ') + (count > some.length ? ' …' : '');

type MembersProps = { which: 'gain' | 'lose'; count: number; paints: PaintedCell[]; ask: AskDraftMembers };

/** How many gain or lose, and on request who. */
function Members({ which, count, paints, ask }: MembersProps) {
  const [found, setFound] = useState<{ paints: PaintedCell[]; members: Member[] }>();
  const members = found?.paints === paints ? found.members : null;
  return (
    <div>
      <p className="flex flex-wrap items-center gap-x-3">
        {desk(which === 'gain' ? 'desk-access.draft-would-gain' : 'desk-access.draft-would-lose', { count })}
        {!members && (
          <button
            type="button"
            className="underline underline-offset-4"
            onClick={() => void ask(paints, which).then((all) => setFound({ paints, members: all }))}
          >
            {desk(which === 'gain' ? 'desk-access.who-gains' : 'desk-access.who-loses')}
          </button>
        )}
      </p>
      {members && (
        <ul className="mt-1 columns-2 text-[0.9375rem] text-on-night-soft">
          {members.map(({ id, name, email }) => (
            <li key={id}>
              <a href={`/desk/members/${id}`} className="underline">
                {name || email}
              </a>
            </li>
          ))}
          {count > members.length && (
            <li>{desk('desk-access.and-more-members', { count: members.length })}</li>
          )}
        </ul>
      )}
    </div>
  );
}
