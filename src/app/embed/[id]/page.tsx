import type { Metadata } from 'next';
import { embeddedItem } from '@/access/services/embed';
import { EmbedDoor } from '@/access/ui/embed-door';
import { currentActor, currentSite, shown, siteWords } from '@/app/session';
import { RichText } from '@/content/ui/rich-text';
import { ClosedSection } from '@/content/ui/closed-section';
import { partsOf } from '@/content/ui/text-parts';

export const metadata: Metadata = { robots: { index: false } };

/** An item for a frame of another site. It has no form, and is read by those alone who may read it. */
export default async function EmbedPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const [t, site] = [await siteWords(), await currentSite()];
  const item = await shown(embeddedItem(await currentActor(), id));
  return (
    <main className="bg-paper p-5 font-sans text-ink" lang={site.language}>
      <h1 className="text-2xl leading-tight">{item.title}</h1>
      {item.kind === 'open' ? (
        <RichText
          document={item.body}
          className="prose mt-4"
          here={item.path}
          closed={(words) => (
            <ClosedSection t={t} isMember={false}>
              {words}
            </ClosedSection>
          )}
          {...partsOf(t, item.shown)}
        />
      ) : (
        <>
          {item.summary && <p className="mt-3 text-lg text-muted">{item.summary}</p>}
          {item.teaser && (
            <div className="fade-away mt-4">
              <RichText document={item.teaser} here={item.path} {...partsOf(t, item.shown)} />
            </div>
          )}
          <EmbedDoor
            id={id}
            ask={item.ask}
            words={{
              signIn: t('frame.sign-in'),
              hint: t('frame.hint', { letters: item.letters }),
              waiting: t('frame.waiting'),
            }}
          />
        </>
      )}
      <p className="mt-5 text-sm text-muted">
        <a href={item.path} target="_blank" rel="noopener" className="underline">
          {t('frame.on-site', { site: site.name })}
        </a>
      </p>
    </main>
  );
}
