import { Tabs } from '@/kit/tabs';
import { desk } from '@/words/desk';

const TABS = [
  { id: 'mails', name: desk('desk-settings.mails'), path: '/desk/settings/mail' },
  { id: 'log', name: desk('desk-settings.sent-to-whom'), path: '/desk/settings/mail/log' },
];

/** `hasLog`: whether the one who looks may see what was sent to members. */
export function MailTabs({ here, hasLog }: { here: string; hasLog: boolean }) {
  if (!hasLog) return null;
  return (
    <div className="mt-4 w-fit">
      <Tabs label={desk('desk-settings.mail')} here={here} tabs={TABS} />
    </div>
  );
}
