import { Button } from '@/kit/button';
import type { Words } from '@/words/speak';

/** Stands at the foot while staff see the site through other eyes. */
export function LookBar({ who, t }: { who: string; t: Words }) {
  return (
    <form
      action="/look"
      method="post"
      className="sticky bottom-0 z-20 flex flex-wrap items-center justify-center gap-4 bg-lamp px-4 py-2 text-[#1c2a2e]"
    >
      <p className="font-semibold">{t('site.looking-as', { viewpoint: who })}</p>
      <input type="hidden" name="as" value="self" />
      <Button type="submit" look="quiet" className="min-h-8 py-1">
        {t('site.back-to-desk')}
      </Button>
    </form>
  );
}
