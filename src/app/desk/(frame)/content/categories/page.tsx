import type { Metadata } from 'next';
import { currentActor, requireStaff, shown } from '@/app/session';
import { contentTerms } from '@/access/services/content-place';
import { ContentHead } from '@/content/ui/content-head';
import { TermList } from '@/content/ui/term-list';
import { Empty } from '@/kit/empty';
import { deleteTermAction, placeCategoryAction, saveCategoryAction } from '../actions';
import { desk } from '@/words/desk';

export const metadata: Metadata = { title: desk('desk-content.categories-title') };

export default async function CategoriesPage() {
  const staff = await requireStaff();
  const terms = await shown(contentTerms(await currentActor()));
  const rows = terms.categories;
  return (
    <>
      <ContentHead here="categories" />
      <TermList
        of="category"
        rows={rows}
        mayWrite={staff.may('arrange content')}
        make={saveCategoryAction}
        rename={saveCategoryAction}
        remove={deleteTermAction}
        place={placeCategoryAction}
      />
      {rows.length === 0 && (
        <div className="mt-6 max-w-3xl">
          <Empty title={desk('desk-content.no-categories')}>{desk('desk-content.no-categories-hint')}</Empty>
        </div>
      )}
    </>
  );
}
