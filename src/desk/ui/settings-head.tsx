import type { Right } from '@/core/staff';
import { Tabs } from '@/kit/tabs';
import { desk } from '@/words/desk';

const TABS: { id: string; name: string; path: string; isOwners?: true }[] = [
  { id: 'general', name: desk('desk-settings.general'), path: '/desk/settings' },
  { id: 'theme', name: desk('desk-settings.theme'), path: '/desk/settings/theme' },
  { id: 'words', name: desk('desk-settings.wording'), path: '/desk/settings/words' },
  { id: 'tax', name: desk('desk-settings.tax-and-invoices'), path: '/desk/settings/tax' },
  { id: 'dunning', name: desk('desk.failed-payments'), path: '/desk/settings/dunning' },
  { id: 'mail', name: desk('desk-settings.mail'), path: '/desk/settings/mail' },
  { id: 'account', name: desk('desk.account'), path: '/desk/settings/account' },
  { id: 'staff', name: desk('desk-settings.staff'), path: '/desk/settings/staff', isOwners: true },
  { id: 'audit', name: desk('desk-settings.audit'), path: '/desk/settings/audit', isOwners: true },
  { id: 'api', name: desk('desk-settings.api'), path: '/desk/settings/api', isOwners: true },
  { id: 'webhooks', name: desk('desk-settings.webhooks'), path: '/desk/settings/webhooks', isOwners: true },
  { id: 'transfer', name: desk('desk-settings.transfer'), path: '/desk/settings/transfer', isOwners: true },
  { id: 'live', name: desk('desk-settings.going-live-label'), path: '/desk/settings/live', isOwners: true },
];

type Props = { here: string; may: (right: Right) => boolean };

/** The tabs of the settings, as far as the role of the one who looks may open them. */
export function SettingsHead({ here, may }: Props) {
  const tabs = TABS.filter(({ isOwners }) => !isOwners || may('set up the site'));
  return (
    <div className="flex flex-wrap items-center gap-x-8 gap-y-2" id="desk-main">
      <h1 className="text-3xl">{desk('desk-settings.settings')}</h1>
      <Tabs label={desk('desk-settings.settings')} here={here} tabs={tabs} />
    </div>
  );
}
