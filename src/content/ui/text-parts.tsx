import { Download, FileText, Lock } from '@lucide/icons';
import { SiteIcon } from '@/kit/site-icon';
import { SiteLink } from '@/kit/site-link';
import type { ReactNode } from 'react';
import { isShownInBrowser } from '@/core/content/media';
import type { Words } from '@/words/speak';
import { buttonClass } from '@/kit/button';
import { Picture } from './picture';

/** What a text shows and leads to, by ids. `size` in bytes. */
export type TextParts = {
  pictures: Record<string, { width: number; height: number }>;
  files: Record<string, FilePart>;
  links: Record<string, string>;
};
type FilePart = {
  title: string;
  path: string;
  name: string;
  mediaType: string;
  size: number;
  isOpen: boolean;
};

export const downloadPath = (id: string, name: string): string =>
  `/downloads/${id}/${encodeURIComponent(name)}`;

/** How the pictures, files and embedded parts of a text are shown. */
export function partsOf(t: Words, parts: TextParts) {
  return {
    links: parts.links,
    nameLabel: t('details.name'),
    image: ({ picture, alt, caption }: { picture: string; alt: string; caption: string }): ReactNode => {
      const size = parts.pictures[picture];
      return size ? (
        <figure>
          <Picture
            picture={{ id: picture, ...size, alt }}
            sizes="(min-width: 42rem) 42rem, 100vw"
            className="h-auto w-full rounded-lg"
          />
          {caption && <figcaption className="mt-2 text-base text-muted">{caption}</figcaption>}
        </figure>
      ) : null;
    },
    file: (id: string): ReactNode => {
      const file = parts.files[id];
      return file ? <FileCard t={t} id={id} file={file} /> : null;
    },
    embed: (attrs: { url: string; title: string }): ReactNode => <Embed t={t} {...attrs} />,
  };
}

function FileCard({ t, id, file }: { t: Words; id: string; file: FilePart }) {
  return (
    <div className="panel flex flex-wrap items-center gap-x-4 gap-y-2 rounded-card border border-line bg-surface px-4 py-3 text-base">
      <SiteIcon icon={FileText} className="size-6 flex-none text-muted" aria-hidden />
      <div className="min-w-0 flex-1">
        <SiteLink href={file.path} className="font-semibold hover:underline">
          {file.title}
        </SiteLink>
        {!file.isOpen && (
          <SiteIcon icon={Lock} className="ml-2 inline size-4 text-closed" aria-label={t('site.closed')} />
        )}
        <p className="figures break-words text-muted">
          {t('site.file-facts', { name: file.name, size: t.size(file.size) })}
        </p>
      </div>
      {file.isOpen && (
        <a href={downloadPath(id, file.name)} className={buttonClass('quiet')}>
          <SiteIcon icon={Download} className="size-4.5" aria-hidden /> {t('site.download')}
        </a>
      )}
      {file.isOpen && <Player id={id} name={file.name} mediaType={file.mediaType} />}
    </div>
  );
}

/** Sound and film play where they are; nothing is fetched before that but their length. */
export function Player({ id, name, mediaType }: { id: string; name: string; mediaType: string }) {
  const source = downloadPath(id, name);
  if (!isShownInBrowser(mediaType)) return null;
  if (mediaType.startsWith('audio/'))
    return <audio controls preload="metadata" src={source} className="w-full" />;
  if (mediaType.startsWith('video/'))
    return <video controls preload="metadata" src={source} className="w-full rounded-lg" />;
  return null;
}

/** Something of another site: nothing is asked of that site before a reader opens it. The link works in any case. */
function Embed({ t, url, title }: { t: Words; url: string; title: string }) {
  const { hostname: host } = new URL(url);
  return (
    <details className="rounded-card border border-line bg-surface px-4 py-3 text-base">
      <summary className="font-semibold">
        {title || t('site.embed-show', { host })}
        <span className="ml-2 font-normal text-muted">{t('site.embed-note', { host })}</span>
      </summary>
      <iframe
        src={url}
        title={title || host}
        loading="lazy"
        referrerPolicy="no-referrer"
        sandbox="allow-scripts allow-same-origin allow-popups allow-presentation"
        className="mt-3 aspect-video w-full rounded-lg border border-line bg-sunken"
      />
      <p className="mt-2">
        <a href={url} rel="noopener noreferrer nofollow">
          {t('site.embed-open', { host })}
        </a>
      </p>
    </details>
  );
}
