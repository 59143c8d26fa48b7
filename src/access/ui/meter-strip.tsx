import type { Words } from '@/words/speak';
import { SiteLink } from '@/kit/site-link';

type Props = { t: Words; left: number; of: number; joinPath: string };

/** How many free reads someone has left, at the head of what they read by one of them. */
export function MeterStrip({ t, left, of, joinPath }: Props) {
  return (
    <p className="free-read mt-5 flex flex-wrap items-center gap-x-4 gap-y-1 rounded-r-md border-l-4 border-dashed border-metered bg-metered-wash px-4 py-2 text-metered">
      <span className="figures font-semibold">{t('meter.left', { left, of })}</span>
      <SiteLink href={joinPath} className="underline underline-offset-4">
        {t('meter.join')}
      </SiteLink>
    </p>
  );
}
