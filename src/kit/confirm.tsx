import type { ReactNode } from 'react';
import { buttonClass, type Look } from './button';
import { CloseDetails } from './close-details';
import { desk } from '@/words/desk';

type Props = { summary: ReactNode; question: string; look?: Look; children: ReactNode };

/** A button that asks before what cannot be undone; `children` is the button that does it. */
export function Confirm({ summary, question, look = 'bad', children }: Props) {
  return (
    <details className="open:basis-full">
      <summary className={buttonClass(look, 'cursor-pointer list-none')}>{summary}</summary>
      <div className="mt-2 grid gap-3 rounded-md bg-sunken p-4">
        <p className="font-semibold">{question}</p>
        <div className="flex flex-wrap items-start gap-3">
          {children}
          <CloseDetails>{desk('desk.cancel')}</CloseDetails>
        </div>
      </div>
    </details>
  );
}
