import { Link } from '@/kit/link';
import { OPEN_TOPICS } from '@/core/mail-topics';
import { STATES } from '@/core/billing/states';
import { Button } from '@/kit/button';
import { inputClass } from '@/kit/input-class';
import { desk } from '@/words/desk';
import type { Words } from '@/words/words';

type Named = { id: string; name: string };
export const MEMBER_COLUMN_CHOICES = [
  'holds',
  'state',
  'next',
  'joined',
  'seen',
  'groups',
  'gateway',
] as const;
export type ShownColumn = (typeof MEMBER_COLUMN_CHOICES)[number];
export const FIRST_COLUMNS: ShownColumn[] = ['holds', 'state', 'next', 'joined'];

type Props = {
  t: Words;
  /** What is in the address. */
  asked: Record<string, string | undefined>;
  columns: ShownColumn[];
  tiers: Named[];
  groups: Named[];
  gateways: Named[];
  fields: { id: string; label: string; options: string[] }[];
};

const DAYS = [7, 30, 90, 365];
const MORE = [
  'group',
  'gateway',
  'account',
  'mails',
  'joinedFrom',
  'joinedTo',
  'leftFrom',
  'seen',
  'unseen',
  'due',
  'answer',
  'sort',
  'cols',
];

/** A plain form: the filter is in the address, so that it can be sent to a colleague or saved as a view. */
export function MemberFilter({ t, asked, columns, tiers, groups, gateways, fields }: Props) {
  const more = MORE.filter((name) => asked[name]).length;
  const isSet = more > 0 || asked.q || asked.tier || asked.state;
  return (
    <form className="mt-4 grid gap-3" role="search">
      <div className="flex flex-wrap gap-3">
        <input
          name="q"
          defaultValue={asked.q}
          data-filter
          aria-label={desk('desk-members.search')}
          placeholder={desk('desk-members.search')}
          className={`${inputClass} max-w-72`}
        />
        <Choice
          name="tier"
          label={desk('desk-members.holds')}
          any={desk('desk-members.any-tier')}
          value={asked.tier}
          of={tiers}
        />
        <Choice
          name="state"
          label={desk('desk.state')}
          any={desk('desk-members.any-state')}
          value={asked.state}
          of={[
            ...[...STATES, 'disputed' as const].map((one) => ({ id: one, name: t(`state.${one}`) })),
            { id: 'some', name: desk('desk-members.some-subscription') },
            { id: 'none', name: desk('desk-members.no-subscription') },
          ]}
        />
        <Button type="submit" look="quiet">
          {desk('desk-members.filter')}
        </Button>
        {isSet && (
          <Link href="/desk/members" className="self-center text-spruce underline">
            {desk('desk-members.clear')}
          </Link>
        )}
      </div>
      <details open={more > 0} className="group">
        <summary className="w-fit cursor-pointer text-spruce">
          {desk('desk-members.more-filters', { count: more })}
        </summary>
        <div className="mt-3 grid gap-4 rounded-card border border-line bg-surface p-4 sm:grid-cols-2 lg:grid-cols-4">
          <Choice
            isLabelled
            name="group"
            label={desk('desk-members.group')}
            any={desk('desk-members.any')}
            value={asked.group}
            of={groups}
          />
          <Choice
            isLabelled
            name="gateway"
            label={desk('desk-members.paid-by')}
            any={desk('desk-members.any')}
            value={asked.gateway}
            of={gateways}
          />
          <Choice
            isLabelled
            name="account"
            label={desk('desk-members.account')}
            any={desk('desk-members.any')}
            value={asked.account}
            of={[
              { id: 'unconfirmed', name: desk('desk-members.email-not-confirmed') },
              { id: 'blocked', name: desk('desk-members.is-blocked') },
            ]}
          />
          <Choice
            isLabelled
            name="mails"
            label={desk('desk-letters.emails')}
            any={desk('desk-members.any')}
            value={asked.mails}
            of={OPEN_TOPICS.map((id) => ({ id, name: desk(`desk-letters.gets-${id}`) }))}
          />
          <Choice
            isLabelled
            name="due"
            label={desk('desk.next-charge')}
            any={desk('desk-members.any')}
            value={asked.due}
            of={DAYS.map((n) => ({ id: String(n), name: desk('desk-members.within-days', { n }) }))}
          />
          <Choice
            isLabelled
            name="seen"
            label={desk('desk-members.last-seen')}
            any={desk('desk-members.any')}
            value={asked.seen}
            of={DAYS.map((n) => ({ id: String(n), name: desk('desk-members.seen-within', { n }) }))}
          />
          <Choice
            isLabelled
            name="unseen"
            label={desk('desk-members.not-seen')}
            any={desk('desk-members.any')}
            value={asked.unseen}
            of={DAYS.map((n) => ({ id: String(n), name: desk('desk-members.not-seen-for', { n }) }))}
          />
          <Day name="joinedFrom" label={desk('desk-members.joined-from')} value={asked.joinedFrom} />
          <Day name="joinedTo" label={desk('desk-members.joined-to')} value={asked.joinedTo} />
          <Day name="leftFrom" label={desk('desk-members.left-from')} value={asked.leftFrom} />
          {fields.some(({ options }) => options.length > 0) && (
            <label className="grid gap-1">
              <span className="text-[0.9375rem] font-semibold">{desk('desk-members.answered')}</span>
              <select name="answer" defaultValue={asked.answer ?? ''} className={inputClass}>
                <option value="">{desk('desk-members.any')}</option>
                {fields
                  .filter(({ options }) => options.length > 0)
                  .map((field) => (
                    <optgroup key={field.id} label={field.label}>
                      {field.options.map((option) => (
                        <option key={option} value={`${field.id}:${option}`}>
                          {option}
                        </option>
                      ))}
                    </optgroup>
                  ))}
              </select>
            </label>
          )}
          <Choice
            isLabelled
            name="sort"
            label={desk('desk-members.order')}
            any={desk('desk-members.newest-first')}
            value={asked.sort}
            of={[{ id: 'name', name: desk('desk-members.by-name') }]}
          />
          <fieldset className="sm:col-span-2">
            <legend className="text-[0.9375rem] font-semibold">{desk('desk-members.columns')}</legend>
            <div className="mt-1 flex flex-wrap gap-x-5 gap-y-1">
              {MEMBER_COLUMN_CHOICES.map((column) => (
                <label key={column} className="flex items-center gap-2">
                  <input
                    type="checkbox"
                    name="cols"
                    value={column}
                    defaultChecked={columns.includes(column)}
                    className="size-4"
                  />
                  {desk(`desk-members.shows-${column}`)}
                </label>
              ))}
            </div>
          </fieldset>
        </div>
      </details>
    </form>
  );
}

type ChoiceProps = {
  name: string;
  label: string;
  any: string;
  value: string | undefined;
  of: Named[];
  isLabelled?: boolean;
};

function Choice({ name, label, any, value = '', of, isLabelled = false }: ChoiceProps) {
  const select = (
    <select
      name={name}
      defaultValue={value}
      aria-label={isLabelled ? undefined : label}
      className={isLabelled ? inputClass : `${inputClass} max-w-48`}
    >
      <option value="">{any}</option>
      {of.map((one) => (
        <option key={one.id} value={one.id}>
          {one.name}
        </option>
      ))}
    </select>
  );
  if (!isLabelled) return select;
  return (
    <label className="grid gap-1">
      <span className="text-[0.9375rem] font-semibold">{label}</span>
      {select}
    </label>
  );
}

function Day({ name, label, value = '' }: { name: string; label: string; value: string | undefined }) {
  return (
    <label className="grid gap-1">
      <span className="text-[0.9375rem] font-semibold">{label}</span>
      <input type="date" name={name} defaultValue={value} className={inputClass} />
    </label>
  );
}
