import { Button } from '@/kit/button';
import { SiteLink } from '@/kit/site-link';
import { startOfDate } from '@/core/calendar';
import { writeWho, type LookingAs } from '@/core/access/viewpoint';
import type { Words } from '@/words/speak';

/** Whom staff look as, in words that follow “as”. */
export function asWords({ who, name }: LookingAs, t: Words): string {
  switch (who.kind) {
    case 'visitor':
      return t('site.as-visitor');
    case 'signed-in':
      return t('site.as-signed-in');
    case 'tier':
      return t('site.as-tier', { name });
    case 'group':
      return t('site.as-group', { name });
    case 'pass':
      return t('site.as-pass', { name });
    case 'member':
      return name;
  }
}

/** At the foot of every page while staff see the site through other eyes; the day can be changed there. */
export function LookBar({ as, t, path }: { as: LookingAs; t: Words; path: string }) {
  const viewpoint = asWords(as, t);
  return (
    <div className="sticky bottom-0 z-20 flex flex-wrap items-center justify-center gap-x-4 gap-y-2 bg-lamp px-4 py-2 text-[#1c2a2e] [color-scheme:light]">
      <p className="font-semibold">
        {as.on
          ? t('site.looking-as-on', { viewpoint, date: t.date(startOfDate(as.on, t.zone)) })
          : t('site.looking-as', { viewpoint })}
      </p>
      <form action="/look" method="post" className="flex items-center gap-2">
        <input type="hidden" name="as" value={writeWho(as.who)} />
        <input type="hidden" name="to" value="here" />
        <label className="flex items-center gap-2">
          <span className="max-sm:sr-only">{t('site.look-on-day')}</span>
          <input
            type="date"
            name="on"
            defaultValue={as.on ?? ''}
            className="min-h-8 rounded-md border border-[#1c2a2e]/40 bg-white/60 px-2"
          />
        </label>
        <Button type="submit" look="quiet" className="min-h-8 py-1">
          {t('site.look-go')}
        </Button>
      </form>
      <SiteLink
        href={`/desk/why?path=${encodeURIComponent(path)}`}
        className="font-semibold underline underline-offset-4"
      >
        {t('site.look-why')}
      </SiteLink>
      <form action="/look" method="post">
        <input type="hidden" name="as" value="self" />
        <Button type="submit" look="quiet" className="min-h-8 py-1">
          {t('site.back-to-desk')}
        </Button>
      </form>
    </div>
  );
}
