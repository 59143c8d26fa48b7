import { LEGAL_ROLES, type LegalRole } from '@/core/content/page-roles';
import { fromText } from '@/core/content/prose';
import { freePath } from '@/core/content/item';
import type { Instant } from '@/core/instants';
import { listItems } from '@/content/store/items';
import { saveItem } from '@/content/store/save-items';
import { listPageRoles, setPageRole } from '@/content/store/page-roles';
import { addRevision } from '@/content/store/revisions';
import type { Transaction } from '@/platform/store/db';
import type { Site } from '@/platform/store/site';
import { wordsOf } from '@/words/words';
import { searchLanguageOf } from './search-language';

/**
 * Makes the pages that the law asks for, where there are none: with a text to begin from, which says what the product
 * itself knows. @returns which were made
 */
export async function makeLegalPages(
  db: Transaction,
  site: Pick<Site, 'language' | 'zone' | 'reworded' | 'name'>,
  at: Instant,
): Promise<LegalRole[]> {
  const known = new Set((await listPageRoles(db)).map(({ role }) => role));
  const missing = LEGAL_ROLES.filter((role) => !known.has(role));
  const taken = new Set((await listItems(db)).map(({ path }) => path));
  const t = wordsOf(site);
  for (const role of missing) {
    const path = freePath(`/${role}`, (one) => taken.has(one));
    const id = path.slice(1);
    await saveItem(
      db,
      {
        id: `legal-${id}`,
        type: 'page',
        path,
        parentId: null,
        title: role === 'privacy' ? t('legal.privacy') : t('legal.terms'),
        summary: '',
        body: fromText(
          role === 'privacy'
            ? t('legal.privacy-text', { site: site.name })
            : t('legal.terms-text', { site: site.name }),
        ),
        target: null,
        author: '',
        tags: [],
        categories: [],
        position: 1000,
        pictureId: null,
        pictureAlt: '',
        publishedAt: at,
        wasPublishedAt: null,
        commentsOn: null,
      },
      searchLanguageOf(site),
    );
    await addRevision(db, `legal-${id}`, null, at);
    await setPageRole(db, role, `legal-${id}`);
  }
  return missing;
}
