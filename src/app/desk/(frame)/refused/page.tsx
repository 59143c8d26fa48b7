import type { Metadata } from 'next';
import { requireStaff } from '@/app/session';
import { LinkButton } from '@/kit/button';

export const metadata: Metadata = { title: 'Not for your role' };

export default async function RefusedPage() {
  const { staffRole } = await requireStaff();
  return (
    <div className="max-w-prose py-10">
      <h1 className="text-3xl" id="desk-main">
        Your role does not do this
      </h1>
      <p className="mt-2 text-muted">
        As {staffRole === 'editor' ? 'an' : 'a'} {staffRole} you may look, but not change that. The owner of
        the site can give you another role.
      </p>
      <LinkButton href="/desk" className="mt-5">
        To Today
      </LinkButton>
    </div>
  );
}
