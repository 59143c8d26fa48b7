import { Tabs } from '@/kit/tabs';

const TABS = [
  { id: 'mails', name: 'Mails', path: '/desk/settings/mail' },
  { id: 'log', name: 'Sent to whom', path: '/desk/settings/mail/log' },
];

export function MailTabs({ here }: { here: string }) {
  return (
    <div className="mt-4 w-fit">
      <Tabs label="Mail" here={here} tabs={TABS} />
    </div>
  );
}
