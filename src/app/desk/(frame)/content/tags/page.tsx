import type { Metadata } from 'next';
import { currentActor, requireStaff, shown } from '@/app/session';
import { contentTerms } from '@/access/services/content-place';
import { ContentHead } from '@/content/ui/content-head';
import { TermList } from '@/content/ui/term-list';
import { Empty } from '@/kit/empty';
import { addTagAction, deleteTermAction, placeTagAction, renameTagAction } from '../actions';
import { desk } from '@/words/desk';

export const metadata: Metadata = { title: desk('desk-content.tags-title') };

export default async function TagsPage() {
  const staff = await requireStaff();
  const terms = await shown(contentTerms(await currentActor()));
  const rows = terms.tags.map((tag) => ({ ...tag, parentId: null, depth: 0 }));
  return (
    <>
      <ContentHead here="tags" />
      <TermList
        of="tag"
        rows={rows}
        mayWrite={staff.may('arrange content')}
        make={addTagAction}
        rename={renameTagAction}
        remove={deleteTermAction}
        place={placeTagAction}
      />
      {rows.length === 0 && (
        <div className="mt-6 max-w-3xl">
          <Empty title={desk('desk-content.no-tags')}>{desk('desk-content.no-tags-hint')}</Empty>
        </div>
      )}
    </>
  );
}
