'use client';

import type { Length, LocalDate } from '@/core/instants';
import type { Edge, Who } from '@/core/access/rule';
import { inputClass } from '@/kit/input-class';
import { desk } from '@/words/desk';
import { LengthInput } from '@/kit/length-input';

type Props = {
  edge: Edge | undefined;
  who: Who;
  tiers: { id: string; name: string }[];
  passes: { id: string; name: string }[];
  label: string;
  /** What it is called where there is no edge. */
  none: string;
  edgeIs: 'from' | 'until';
  onChange: (edge: Edge | undefined) => void;
};

const FIRST: Length = { n: 7, unit: 'day' };

/** From when, or until when, a line lets people in: a date, or so long after something. */
export function EdgeField({ edge, who, tiers, passes, label, none, edgeIs, onChange }: Props) {
  const chosen = keyOf(edge);
  const after = edge && 'since' in edge ? edge.after : FIRST;
  const choose = (key: string): void => {
    if (key === '') return onChange(undefined);
    if (key === 'on') return onChange({ on: new Date().toISOString().slice(0, 10) as LocalDate });
    const [since, kind, id] = key.split(' ');
    if (since !== 'published' && since !== 'joined' && since !== 'held') return;
    onChange({ since, after, ...(id && (kind === 'tier' || kind === 'pass') && { of: { kind, id } }) });
  };
  const holdings = [
    ...tiers.map((tier) => ({ ...tier, kind: 'tier' as const })),
    ...passes.map((pass) => ({ ...pass, kind: 'pass' as const })),
  ];
  const canHold = who.kind === 'tier' || who.kind === 'paying' || who.kind === 'pass';
  return (
    <fieldset className="grid content-start gap-1.5">
      <legend className="mb-1 text-[0.9375rem] text-muted">{label}</legend>
      <select
        aria-label={label}
        className={`${inputClass} py-1`}
        value={chosen}
        onChange={(event) => choose(event.target.value)}
      >
        <option value="">{none}</option>
        <option value="on">{desk('desk-access.on-a-date')}</option>
        <option value="published">{desk('desk-access.after-publishing')}</option>
        <option value="joined">{desk('desk-access.after-joining')}</option>
        {canHold && <option value="held">{desk('desk-access.after-getting-it')}</option>}
        {holdings
          .filter(({ kind, id }) => !(who.kind === kind && who.id === id))
          .map(({ kind, id, name }) => (
            <option key={`${kind} ${id}`} value={`held ${kind} ${id}`}>
              {desk('desk-access.after-getting', { name })}
            </option>
          ))}
      </select>
      {edge && 'on' in edge && (
        <input
          type="date"
          aria-label={`${label} ${desk('desk-access.on-a-date')}`}
          className={`${inputClass} py-1`}
          value={edge.on}
          onChange={(event) => event.target.value && onChange({ on: event.target.value as LocalDate })}
        />
      )}
      {edge && 'since' in edge && (
        <LengthInput length={edge.after} label={label} onChange={(after) => onChange({ ...edge, after })} />
      )}
      {edgeIs === 'until' && edge && 'since' in edge && edge.since === 'held' && (
        <p className="text-sm text-muted">{desk('desk-access.until-held-hint')}</p>
      )}
    </fieldset>
  );
}

function keyOf(edge: Edge | undefined): string {
  if (!edge) return '';
  if ('on' in edge) return 'on';
  return edge.of ? `${edge.since} ${edge.of.kind} ${edge.of.id}` : edge.since;
}
