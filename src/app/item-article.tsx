import { SiteLink, SiteLinkButton } from '@/kit/site-link';
import 'server-only';
import clsx from 'clsx';
import { Download } from '@lucide/icons';
import { SiteIcon } from '@/kit/site-icon';
import { Comments } from '@/app/comments';
import { categoryNames, namesInLists } from '@/app/item-pages';
import { kindOf } from '@/access/services/list-items';
import { currentActor, currentSite, shown, siteWords } from '@/app/session';
import { enterSharedPasswordAction, leaveAddressAction } from '@/app/pass-actions';
import { signInAction } from '@/app/sign-in-action';
import { structuredData } from '@/app/structured-data';
import { panelsOf, productPanelsOf } from '@/app/panels';
import { doorstepTiers } from '@/app/doorstep-tiers';
import { servingPages } from '@/access/services/serving-pages';
import { MeterStrip } from '@/access/ui/meter-strip';
import type { ItemPreview, ItemView } from '@/access/services/view-item';
import { Doorstep } from '@/access/ui/doorstep';
import { ClosedSection } from '@/content/ui/closed-section';
import { FrontHero } from '@/content/ui/front-hero';
import { lineAbove } from '@/content/ui/item-list';
import { Picture } from '@/content/ui/picture';
import { ReadingPlace } from '@/content/ui/reading-place';
import { RichText } from '@/content/ui/rich-text';
import { downloadPath, partsOf, Player } from '@/content/ui/text-parts';
import { buttonClass } from '@/kit/button';
import type { Words } from '@/words/words';

export type Seen = Extract<ItemView, { kind: 'open' | 'doorstep' }>;

/** An item as a person may read it: its text, or its teaser and the doorstep. */
export async function ItemArticle({ seen, commentsPage = 1 }: { seen: Seen; commentsPage?: number }) {
  const [t, site] = [await siteWords(), await currentSite()];
  const actor = await currentActor();
  const serving = await shown(servingPages(actor));
  const paths = { join: serving.join?.path ?? '/join', signIn: serving['sign-in']?.path ?? '/sign-in' };
  const { item } = seen;
  const isPage = item.type === 'page';
  const above = lineAbove(
    isPage ? { ...item, publishedAt: null, minutes: 0 } : item,
    t,
    await categoryNames(),
  );
  return (
    <>
      {item.path === '/' && <Hero t={t} seen={seen} isSignedIn={actor.memberId !== null} />}
      <script type="application/ld+json" dangerouslySetInnerHTML={{ __html: structuredData(seen, site) }} />
      <article
        className={clsx(
          // A page with the members' room is as wide as that.
          'mx-auto w-full max-w-2xl px-5 pt-9 has-[.members-room]:max-w-6xl sm:pt-12',
          seen.kind === 'open' ? 'pb-12' : 'pb-2',
        )}
      >
        {item.path !== '/' && (
          <>
            <p className="text-[0.9375rem] text-muted">{[above, item.author].filter(Boolean).join(' · ')}</p>
            <h1 className="mt-2 text-4xl leading-[1.1] sm:text-5xl">{item.title}</h1>
            {seen.kind === 'open' && seen.isDraft && (
              <p className="mt-4 rounded-md bg-metered-wash px-3 py-2 text-metered">
                {t('site.unpublished')}
              </p>
            )}
            {item.picture && (
              <Picture
                picture={item.picture}
                sizes="(min-width: 42rem) 42rem, 100vw"
                isFirst
                className="mt-6 h-auto w-full rounded-lg"
              />
            )}
          </>
        )}
        {seen.kind === 'open' && seen.meter?.left !== undefined && seen.meter.left !== null && (
          <MeterStrip t={t} left={seen.meter.left} of={seen.meter.of} joinPath={paths.join} />
        )}
        {seen.kind === 'open' ? (
          <>
            {seen.file && <FilePart t={t} id={item.id} file={seen.file} summary={seen.summary} />}
            <RichText
              document={seen.body}
              className="prose mt-7"
              here={item.path}
              panel={await panelsOf(seen.body, item.path)}
              product={await productPanelsOf(seen.body, item.path)}
              closed={(words) => (
                <ClosedSection t={t} isMember={actor.memberId !== null}>
                  {words}
                </ClosedSection>
              )}
              {...partsOf(t, seen.shown)}
            />
            <TagLinks item={item} />
            {actor.memberId !== null && item.minutes > 1 && (
              <ReadingPlace key={item.id} itemId={item.id} words={t('site.continue-reading')} />
            )}
          </>
        ) : (
          <>
            {seen.summary && <p className="mt-6 text-xl leading-relaxed text-muted">{seen.summary}</p>}
            {seen.teaser && (
              <div className="fade-away mt-6">
                <RichText document={seen.teaser} here={item.path} {...partsOf(t, seen.shown)} />
              </div>
            )}
          </>
        )}
        {seen.kind === 'open' && <Beside t={t} beside={seen.beside} />}
        {seen.kind === 'open' && seen.hasComments && (
          <Comments itemId={item.id} path={item.path} page={commentsPage} />
        )}
      </article>
      {seen.kind === 'doorstep' && (
        <>
          <Doorstep
            t={t}
            signIn={signInAction}
            item={{ type: item.type, title: item.title, path: item.path, summary: seen.summary }}
            state={seen.state}
            opensOn={seen.opensAt ? t.date(seen.opensAt) : null}
            minutesLeft={seen.minutesLeft}
            asker={seen.asker}
            notice={seen.notice}
            firstName={seen.firstName}
            button={seen.button}
            showSignIn={seen.showSignIn}
            joinPath={paths.join}
            signInPath={`${paths.signIn}?to=${encodeURIComponent(item.path)}`}
            usedUp={
              seen.meter && {
                of: seen.meter.of,
                freeOn: seen.meter.freeAt ? t.date(seen.meter.freeAt) : null,
              }
            }
            passes={seen.passes}
            getPass={{ byPassword: enterSharedPasswordAction, byAddress: leaveAddressAction }}
            tiers={await doorstepTiers(t, seen)}
          />
        </>
      )}
    </>
  );
}

async function Hero({ t, seen, isSignedIn }: { t: Words; seen: Seen; isSignedIn: boolean }) {
  const { title, picture } = seen.item;
  const posts = await shown(kindOf(await currentActor(), 'post'));
  return (
    <FrontHero title={title} summary={seen.summary} picture={picture}>
      {!isSignedIn && (
        <SiteLinkButton href="/join" look="lamp">
          {t('site.join')}
        </SiteLinkButton>
      )}
      <SiteLinkButton href={posts.path ?? '/'} look="night">
        {posts.plural}
      </SiteLinkButton>
    </FrontHero>
  );
}

type FileFacts = NonNullable<Extract<Seen, { kind: 'open' }>['file']>;

function FilePart({ t, id, file, summary }: { t: Words; id: string; file: FileFacts; summary: string }) {
  return (
    <>
      {summary && <p className="mt-5 text-xl leading-relaxed text-muted">{summary}</p>}
      <div className="mt-6 flex flex-wrap items-center gap-x-4 gap-y-3">
        <a href={downloadPath(id, file.name)} className={buttonClass('main')}>
          <SiteIcon icon={Download} className="size-4.5" aria-hidden /> {t('site.download')}
        </a>
        <span className="figures break-words text-muted">
          {t('site.file-facts', { name: file.name, size: t.size(file.size) })}
        </span>
      </div>
      <div className="mt-5">
        <Player id={id} name={file.name} mediaType={file.mediaType} />
      </div>
    </>
  );
}

async function TagLinks({ item }: { item: ItemPreview }) {
  const tags =
    item.tags.length > 0 ? (await namesInLists()).tags.filter(({ id }) => item.tags.includes(id)) : [];
  if (tags.length === 0) return null;
  return (
    <ul className="mt-10 flex flex-wrap gap-2">
      {tags.map(({ id, name }) => (
        <li key={id}>
          <SiteLink
            href={`/tags/${encodeURIComponent(id)}`}
            className="block rounded-full border border-line px-3 py-0.5 text-muted hover:border-ink hover:text-ink"
          >
            {name}
          </SiteLink>
        </li>
      ))}
    </ul>
  );
}

/** The way on to the item before and after. */
function Beside({ t, beside: { older, newer } }: { t: Words; beside: Seen['beside'] }) {
  if (!older && !newer) return null;
  return (
    <nav className="mt-10 grid gap-x-8 gap-y-3 border-t border-line pt-5 sm:grid-cols-2">
      {older ? (
        <SiteLink href={older.path} className="text-spruce hover:underline">
          {t('site.previous-item', { title: older.title })}
        </SiteLink>
      ) : (
        <span />
      )}
      {newer && (
        <SiteLink href={newer.path} className="text-spruce hover:underline sm:text-right">
          {t('site.next-item', { title: newer.title })}
        </SiteLink>
      )}
    </nav>
  );
}
