'use client';

import { X } from 'lucide-react';
import { useState } from 'react';
import { refKey, type Opener, type Who } from '@/core/access/rule';
import { STAFF_ROLES } from '@/core/staff';
import type { KeyCut } from '@/core/key-cut';
import { TierName } from '@/kit/key-cut';
import { PickBox } from '@/kit/pick-box';
import { EdgeField } from './edge-field';
import { MemberSearch, type FindMembers } from './member-search';
import { whenWords, whoWords, type Names } from './rule-words';
import { desk } from '@/words/desk';

/** What can be begun by its name alone, while a rule is written. */
export type Beginning = 'tier' | 'group' | 'pass';
export type Begun = { id: string } | { problem: string };
export type BeginOpener = (kind: Beginning, name: string) => Promise<Begun>;

export type TierChoice = { id: string; name: string; keyCut: KeyCut };
type Props = {
  openTo: Opener[];
  tiers: TierChoice[];
  groups: { id: string; name: string }[];
  passes: { id: string; name: string }[];
  names: Names;
  findMembers: FindMembers;
  /** Begins something that is not there yet; `mayBegin`: what of it the one who writes may begin. */
  begin: BeginOpener;
  mayBegin: readonly Beginning[];
  onChange: (openTo: Opener[], names?: Names) => void;
};

/** Chooses whom a rule lets in, a line for each, and from when until when. */
export function OpenerPicker({
  openTo,
  tiers,
  groups,
  passes,
  names,
  findMembers,
  onChange,
  begin,
  mayBegin,
}: Props) {
  const [problem, setProblem] = useState('');
  const change = (at: number, part: Partial<Opener>): void =>
    onChange(openTo.map((line, n) => (n === at ? trimmed({ ...line, ...part }) : line)));
  const chosen = new Set(openTo.map(({ who }) => refKey(who)));
  const add = (who: Who, name?: string): void =>
    onChange([...openTo, { who }], name && 'id' in who ? { [refKey(who)]: name } : undefined);
  const beginAndAdd = async (kind: Beginning, name: string): Promise<void> => {
    const begun = await begin(kind, name).catch(() => ({ problem: desk('desk-access.not-begun') }));
    setProblem('problem' in begun ? begun.problem : '');
    if ('id' in begun) add({ kind, id: begun.id }, name);
  };
  const options = (list: { who: Who; name: string }[]) =>
    list
      .filter(({ who }) => !chosen.has(refKey(who)))
      .map(({ who, name }) => ({ id: JSON.stringify(who), name }));
  return (
    <div className="grid gap-3">
      <ul className="grid gap-2">
        {openTo.map((line, at) => {
          const { who } = line;
          const tier = who.kind === 'tier' ? tiers.find(({ id }) => id === who.id) : undefined;
          const name = whoWords(line, names);
          return (
            <li key={`${at} ${refKey(who)}`} className="rounded-md bg-sunken py-1 pr-1 pl-3">
              <div className="flex items-center justify-between gap-3">
                <span className="inline-block font-semibold first-letter:uppercase">
                  {tier ? <TierName cut={tier.keyCut} name={tier.name} /> : name}
                </span>
                <button
                  type="button"
                  aria-label={desk('desk-access.remove', { cover: name })}
                  className="grid size-8 flex-none place-items-center rounded hover:bg-line"
                  onClick={() => onChange(openTo.filter((_, n) => n !== at))}
                >
                  <X className="size-4" aria-hidden />
                </button>
              </div>
              <details className="group pb-1.5">
                <summary className="w-fit cursor-pointer text-[0.9375rem] text-muted underline underline-offset-2">
                  {whenWords(line, names) || desk('desk-access.at-once-and-for-good')}
                </summary>
                <div className="mt-2 grid gap-3 pr-2 sm:grid-cols-2">
                  <EdgeField
                    edge={line.opens}
                    who={who}
                    tiers={tiers}
                    passes={passes}
                    label={desk('desk-access.opens-when', { name })}
                    none={desk('desk-access.at-once')}
                    edgeIs="from"
                    onChange={(opens) => change(at, { opens })}
                  />
                  <EdgeField
                    edge={line.closes}
                    who={who}
                    tiers={tiers}
                    passes={passes}
                    label={desk('desk-access.closes-when', { name })}
                    none={desk('desk-access.for-good')}
                    edgeIs="until"
                    onChange={(closes) => change(at, { closes })}
                  />
                </div>
              </details>
            </li>
          );
        })}
        {openTo.length === 0 && <li className="text-muted">{desk('desk-access.opens-to-nobody')}</li>}
      </ul>
      <PickBox
        label={desk('desk-access.whom-it-opens-to')}
        placeholder={desk('desk-access.whom-it-opens-to')}
        groups={[
          {
            label: desk('desk-access.tiers'),
            options: options(tiers.map(({ id, name }) => ({ who: { kind: 'tier', id }, name }))),
          },
          {
            label: desk('desk-access.more-than-one-tier'),
            options: options([
              { who: { kind: 'paying' }, name: desk('desk-access.everyone-who-pays') },
              { who: { kind: 'signed-in' }, name: desk('desk-access.everyone-signed-in') },
              { who: { kind: 'everyone' }, name: desk('desk-access.everyone') },
            ]),
          },
          {
            label: desk('desk-members.groups'),
            options: options(groups.map(({ id, name }) => ({ who: { kind: 'group', id }, name }))),
          },
          {
            label: desk('desk-access.passes'),
            options: options(passes.map(({ id, name }) => ({ who: { kind: 'pass', id }, name }))),
          },
          {
            label: desk('desk-access.staff-roles'),
            options: options(
              STAFF_ROLES.map((id) => ({
                who: { kind: 'staff', id },
                name: desk('desk-access.staff-of-role', { role: id }),
              })),
            ),
          },
        ].filter((group) => group.options.length > 0)}
        make={(typed) => ({
          label: desk('desk-access.begin'),
          options: mayBegin.map((kind) => ({
            id: JSON.stringify({ begin: kind, name: typed }),
            name: desk(`desk-access.begin-${kind}`, { name: typed }),
          })),
        })}
        onPick={(picked) => {
          const found = JSON.parse(picked) as Who | { begin: Beginning; name: string };
          if ('kind' in found) add(found);
          else void beginAndAdd(found.begin, found.name);
        }}
      />
      {problem && (
        <p role="alert" className="font-medium text-closed">
          {problem}
        </p>
      )}
      <MemberSearch
        find={findMembers}
        label={desk('desk-access.or-one-member')}
        onChoose={({ id, name }) => {
          const who: Who = { kind: 'member', id };
          if (!chosen.has(refKey(who))) add(who, name);
        }}
      />
    </div>
  );
}

/** Without the edges that there are not. */
function trimmed({ who, opens, closes }: Opener): Opener {
  return { who, ...(opens && { opens }), ...(closes && { closes }) };
}
