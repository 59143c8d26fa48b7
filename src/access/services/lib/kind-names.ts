import type { Kind } from '@/content/store/kinds';
import type { Words } from '@/words/words';

/** What a kind is called, one and several of it: the owner's words, or the product's own. */
export function kindNames({ id, name, plural }: Kind, t: Words): { name: string; plural: string } {
  switch (id) {
    case 'page':
      return { name: name || t('kind.page'), plural: plural || t('kind.pages') };
    case 'post':
      return { name: name || t('kind.post'), plural: plural || t('kind.posts') };
    case 'link':
      return { name: name || t('kind.link'), plural: plural || t('kind.links') };
    case 'file':
      return { name: name || t('kind.file'), plural: plural || t('kind.files') };
    default:
      return { name: name || id, plural: plural || id };
  }
}
