import { ChevronRight } from 'lucide-react';
import type { ReactNode } from 'react';

type Props = { title: string; gist?: string; isOpen: boolean; children: ReactNode };

/** A section of a form that folds; its gist is read while it is closed. A form opens it where a field in it has a problem. */
export function Fold({ title, gist, isOpen, children }: Props) {
  return (
    <details open={isOpen} className="group min-w-0 rounded-card border border-line bg-surface">
      <summary className="flex cursor-pointer list-none items-baseline gap-2.5 p-5">
        <ChevronRight
          className="size-4.5 flex-none translate-y-0.5 text-muted group-open:rotate-90"
          aria-hidden
        />
        <span className="min-w-0">
          <h2 className="inline text-xl">{title}</h2>
          {gist && <span className="ml-3 text-muted group-open:hidden">{gist}</span>}
        </span>
      </summary>
      <div className="grid gap-5 px-5 pb-5">{children}</div>
    </details>
  );
}
