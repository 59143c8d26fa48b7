'use client';

import { useState } from 'react';
import type { Prose } from '@/core/content/prose';
import { Draft, useProblem } from '@/kit/action-form';
import { RichTextEditor, type Joinables } from './rich-text-editor';

type Props = { name: string; label: string; hint?: string; initial: Prose; joinables?: Joinables };

/** A few lines of rich text as one field of a form. */
export function RichTextField({ name, label, hint, initial, joinables }: Props) {
  const [prose, setProse] = useState(initial);
  const problem = useProblem(name);
  return (
    <div>
      <Draft name={name} value={prose} />
      <RichTextEditor label={label} initial={initial} onChange={setProse} joinables={joinables} isSmall />
      {problem && <p className="mt-1 text-[0.9375rem] font-medium text-closed">{problem}</p>}
      {hint && <p className="mt-1 text-[0.9375rem] text-muted">{hint}</p>}
    </div>
  );
}
