import { Lock } from '@lucide/icons';
import { SiteIcon } from '@/kit/site-icon';
import { SiteLink } from '@/kit/site-link';
import { Children, type ReactNode } from 'react';
import type { Words } from '@/words/words';

/** In place of a closed section: its author's words, or that it is for members; and how to join. */
export function ClosedSection({
  t,
  isMember,
  children,
}: {
  t: Words;
  isMember: boolean;
  children: ReactNode;
}) {
  return (
    <aside className="closed-part my-6 flex flex-wrap items-baseline gap-x-4 gap-y-1 rounded-card border border-line bg-sunken px-4 py-3 text-base">
      <span className="min-w-0 flex-1">
        <SiteIcon icon={Lock} className="mr-2 inline size-4 text-closed" aria-hidden />
        {Children.count(children) > 0 ? children : t(isMember ? 'section.not-yours' : 'section.closed')}
      </span>
      <SiteLink href="/join" className="font-semibold text-spruce underline">
        {t('signin.how-to-join')}
      </SiteLink>
    </aside>
  );
}
