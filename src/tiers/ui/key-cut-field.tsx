'use client';

import clsx from 'clsx';
import { Minus, Plus } from 'lucide-react';
import { useState } from 'react';
import { chooseKeyCut, MAX_NOTCHES, TINTS, type KeyCut } from '@/core/key-cut';
import { KeyGlyph } from '@/kit/key-cut';
import { Draft, useProblem } from '@/kit/action-form';
import { desk } from '@/words/desk';

/** A key-cut that another tier has, and the sentence that says so. */
export type KnownCut = { keyCut: KeyCut; taken: string };

type Props = { name: string; initial: KeyCut | null; others: KnownCut[] };

const notchTool =
  'grid size-9 place-items-center rounded text-muted hover:bg-sunken hover:text-ink disabled:opacity-40';
const DEPTHS = ['shallow', 'middling', 'deep'];

/** The tier's key: how many notches, how deep each, and its colour. Chosen already; it can be cut otherwise. */
export function KeyCutField({ name, initial, others }: Props) {
  const [cut, setCut] = useState<KeyCut>(() => initial ?? chooseKeyCut(others.map((other) => other.keyCut)));
  const refused = useProblem(name);
  const twin = others.find((other) => other.keyCut.notches.join() === cut.notches.join());
  const problem = twin?.taken ?? refused;
  const deepen = (at: number): void =>
    setCut({ ...cut, notches: cut.notches.map((depth, index) => (index === at ? (depth % 3) + 1 : depth)) });
  return (
    <fieldset>
      <legend className="mb-1 font-semibold">{desk('desk-tiers.key')}</legend>
      <Draft name={name} value={cut} />
      <div className="flex flex-wrap items-center gap-x-6 gap-y-3 rounded-md border border-edge/60 bg-surface px-4 py-3">
        <div className="grid h-14 min-w-36 place-items-center">
          <KeyGlyph cut={cut} size={44} />
        </div>
        <div>
          <div className="flex items-center gap-1" role="group" aria-label={desk('desk-tiers.notches')}>
            {cut.notches.map((depth, index) => (
              <button
                key={index}
                type="button"
                onClick={() => deepen(index)}
                title={desk('desk-tiers.cut-it-deeper-or-shallow-again')}
                aria-label={desk('desk-tiers.notch-press-to-change', {
                  index: index + 1,
                  depth: DEPTHS[depth - 1] ?? '',
                })}
                className="grid h-9 w-8 place-items-start justify-center rounded border border-edge/60 hover:border-ink"
              >
                <span className="w-2 rounded-b bg-ink" style={{ height: `${depth * 9}px` }} aria-hidden />
              </button>
            ))}
            <button
              type="button"
              aria-label={desk('desk-tiers.one-notch-less')}
              className={notchTool}
              disabled={cut.notches.length === 1}
              onClick={() => setCut({ ...cut, notches: cut.notches.slice(0, -1) })}
            >
              <Minus className="size-4" aria-hidden />
            </button>
            <button
              type="button"
              aria-label={desk('desk-tiers.one-notch-more')}
              className={notchTool}
              disabled={cut.notches.length === MAX_NOTCHES}
              onClick={() => setCut({ ...cut, notches: [...cut.notches, 2] })}
            >
              <Plus className="size-4" aria-hidden />
            </button>
          </div>
          <div className="mt-2 flex gap-1" role="radiogroup" aria-label={desk('desk-tiers.colour')}>
            {TINTS.map((tint) => (
              <label
                key={tint}
                title={tint}
                className={clsx(
                  'grid size-8 place-items-center rounded-full border-2 has-focus-visible:outline-2 has-focus-visible:outline-brass',
                  tint === cut.tint ? 'border-ink' : 'border-transparent',
                )}
              >
                <input
                  type="radio"
                  name={`${name}-tint`}
                  checked={tint === cut.tint}
                  onChange={() => setCut({ ...cut, tint })}
                  className="sr-only"
                  aria-label={tint}
                />
                <Swatch tint={tint} />
              </label>
            ))}
          </div>
        </div>
      </div>
      {problem && (
        <p role="alert" className="mt-1 text-[0.9375rem] font-medium text-closed">
          {problem}
        </p>
      )}
      <p className="mt-1 text-[0.9375rem] text-muted">{desk('desk-tiers.shown-wherever-this-tier-is')}</p>
    </fieldset>
  );
}

function Swatch({ tint }: { tint: KeyCut['tint'] }) {
  return <KeyGlyph cut={{ notches: [2], tint }} size={13} />;
}
