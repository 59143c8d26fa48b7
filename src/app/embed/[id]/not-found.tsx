import { siteWords } from '@/app/session';

/** In a frame whose item is not there. */
export default async function EmbedNotFound() {
  const t = await siteWords();
  return <p className="p-5 text-muted">{t('site.not-found')}</p>;
}
