import type { ReactNode } from 'react';

/** A place with nothing in it yet: says what belongs here and how to begin. */
export function Empty({
  title,
  children,
  action,
}: {
  title: string;
  children: ReactNode;
  action?: ReactNode;
}) {
  return (
    <div className="rounded-card border border-dashed border-edge/60 px-6 py-10 text-center">
      <h2 className="text-lg">{title}</h2>
      <p className="mx-auto mt-1 max-w-prose text-muted">{children}</p>
      {action && <div className="mt-4 flex justify-center">{action}</div>}
    </div>
  );
}
