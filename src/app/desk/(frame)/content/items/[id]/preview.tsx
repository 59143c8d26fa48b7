import { Lock } from 'lucide-react';
import type { Meeting } from '@/core/access/doorstep';
import { desk } from '@/words/desk';
import type { PreviewedItem } from '@/access/services/preview-item';
import { ClosedSection } from '@/content/ui/closed-section';
import { RichText } from '@/content/ui/rich-text';
import { partsOf } from '@/content/ui/text-parts';
import type { Words } from '@/words/words';

const noticeWords = (meeting: Meeting): string =>
  meeting.kind === 'notice' ? meeting.words : desk('desk-access.led-to', { to: meeting.to });

type Props = { t: Words; previewed: PreviewedItem };

/** An item as someone would be shown it: its text, or its teaser and what the doorstep says. */
export function Preview({ t, previewed }: Props) {
  const { title, isMember, summary, text, shown, doorstep } = previewed;
  return (
    <div lang={t.locale}>
      <h2 className="text-3xl leading-tight">{title}</h2>
      {doorstep && summary && <p className="mt-3 text-lg text-muted">{summary}</p>}
      {text && (
        <div className={doorstep ? 'fade-away mt-4' : 'mt-4'}>
          <RichText
            document={text}
            here="/"
            closed={(words) => (
              <ClosedSection t={t} isMember={isMember}>
                {words}
              </ClosedSection>
            )}
            {...partsOf(t, shown)}
          />
        </div>
      )}
      {doorstep && (
        <div className="mt-4 rounded-card bg-night px-5 py-4 text-on-night">
          <p className="flex items-center gap-2 font-semibold">
            <Lock className="size-4" aria-hidden />
            {doorstep.opensAt
              ? t('site.opens-on', { date: t.date(doorstep.opensAt) })
              : noticeWords(doorstep.meeting)}
          </p>
          {doorstep.minutesLeft > 0 && (
            <p className="mt-1 text-on-night-soft">
              {t('doorstep.minutes', { minutes: doorstep.minutesLeft })}
            </p>
          )}
          {doorstep.tiers.length > 0 && (
            <p className="mt-1 text-on-night-soft">
              {t('doorstep.tiers', { type: 'post', tiers: t.list(doorstep.tiers) })}
            </p>
          )}
        </div>
      )}
    </div>
  );
}
