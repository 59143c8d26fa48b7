import type { Metadata } from 'next';
import { requireStaff } from '@/app/session';
import { LINES_AT_ONCE } from '@/core/people/member-lines';
import { MemberImport } from '@/members/ui/member-import';
import { MembersTabs } from '@/members/ui/members-tabs';
import { desk } from '@/words/desk';
import { importLinesAction } from './actions';

export const metadata: Metadata = { title: desk('desk-members.import-title') };

export default async function ImportMembersPage() {
  await requireStaff('manage members');
  return (
    <>
      <div className="flex flex-wrap items-baseline gap-3" id="desk-main">
        <h1 className="text-3xl">{desk('desk-members.import-members')}</h1>
        <MembersTabs here="members" />
      </div>
      <p className="mt-3 max-w-2xl text-muted">{desk('desk-members.import-intro')}</p>
      <MemberImport send={importLinesAction} linesAtOnce={LINES_AT_ONCE} />
    </>
  );
}
