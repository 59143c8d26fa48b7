import type { Metadata } from 'next';
import { requireStaff } from '@/app/session';
import { LinkButton } from '@/kit/button';
import { desk } from '@/words/desk';

export const metadata: Metadata = { title: desk('desk-frame.not-for-your-role') };

export default async function RefusedPage() {
  const { staffRole } = await requireStaff();
  return (
    <div className="max-w-prose py-10">
      <h1 className="text-3xl" id="desk-main">
        {desk('desk-frame.your-role-does-not-do-this')}
      </h1>
      <p className="mt-2 text-muted">{desk('desk-frame.role-may-not', { role: staffRole ?? '' })}</p>
      <LinkButton href="/desk" className="mt-5">
        {desk('desk-frame.to-today')}
      </LinkButton>
    </div>
  );
}
