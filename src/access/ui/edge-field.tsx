'use client';

import { UNITS, type Length, type LocalDate, type Unit } from '@/core/instants';
import type { Edge, Who } from '@/core/access/rule';
import { inputClass } from '@/kit/input-class';
import { desk } from '@/words/desk';

type Props = {
  edge: Edge | undefined;
  who: Who;
  tiers: { id: string; name: string }[];
  label: string;
  /** What it is called where there is no edge. */
  none: string;
  edgeIs: 'from' | 'until';
  onChange: (edge: Edge | undefined) => void;
};

const FIRST: Length = { n: 7, unit: 'day' };

/** From when, or until when, a line lets people in: a date, or so long after something. */
export function EdgeField({ edge, who, tiers, label, none, edgeIs, onChange }: Props) {
  const chosen = keyOf(edge);
  const after = edge && 'since' in edge ? edge.after : FIRST;
  const choose = (key: string): void => {
    if (key === '') return onChange(undefined);
    if (key === 'on') return onChange({ on: new Date().toISOString().slice(0, 10) as LocalDate });
    const [since, tier] = key.split(' ');
    if (since !== 'published' && since !== 'joined' && since !== 'held') return;
    onChange({ since, after, ...(tier && { of: { kind: 'tier', id: tier } }) });
  };
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
        {tiers
          .filter(({ id }) => !(who.kind === 'tier' && who.id === id))
          .map(({ id, name }) => (
            <option key={id} value={`held ${id}`}>
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
        <div className="flex gap-2">
          <input
            type="number"
            min={1}
            max={3650}
            aria-label={`${label} ${desk('desk-access.how-many')}`}
            className={`${inputClass} !w-24 py-1`}
            value={Number.isNaN(edge.after.n) ? '' : edge.after.n}
            onChange={(event) =>
              onChange({ ...edge, after: { ...edge.after, n: Number.parseInt(event.target.value, 10) } })
            }
          />
          <select
            aria-label={`${label} ${desk('desk-access.unit')}`}
            className={`${inputClass} py-1`}
            value={edge.after.unit}
            onChange={(event) =>
              onChange({ ...edge, after: { ...edge.after, unit: event.target.value as Unit } })
            }
          >
            {UNITS.map((unit) => (
              <option key={unit} value={unit}>
                {desk(`desk-access.unit-${unit}`)}
              </option>
            ))}
          </select>
        </div>
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
  return edge.of ? `${edge.since} ${edge.of.id}` : edge.since;
}
