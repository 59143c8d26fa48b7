import { Tabs } from '@/kit/tabs';

const TABS = [
  { id: 'general', name: 'General', path: '/desk/settings' },
  { id: 'words', name: 'Wording', path: '/desk/settings/words' },
  { id: 'tax', name: 'Tax and invoices', path: '/desk/settings/tax' },
  { id: 'dunning', name: 'Failed payments', path: '/desk/settings/dunning' },
  { id: 'mail', name: 'Mail', path: '/desk/settings/mail' },
  { id: 'account', name: 'Account', path: '/desk/settings/account' },
  { id: 'staff', name: 'Staff', path: '/desk/settings/staff' },
  { id: 'live', name: 'Going live', path: '/desk/settings/live' },
];

export function SettingsHead({ here }: { here: string }) {
  return (
    <div className="flex flex-wrap items-center gap-x-8 gap-y-2" id="desk-main">
      <h1 className="text-3xl">Settings</h1>
      <Tabs label="Settings" here={here} tabs={TABS} />
    </div>
  );
}
