import type { Metadata } from 'next';
import { currentActor, requireStaff, shown } from '@/app/session';
import { accountSettings } from '@/desk/services/site-settings';
import { AccountSettings } from '@/members/ui/account-settings';
import { SettingsHead } from '@/desk/ui/settings-head';
import { saveAccountAction } from '../actions';
import { desk } from '@/words/desk';

export const metadata: Metadata = { title: desk('desk-settings.account-settings') };

export default async function AccountSettingsPage() {
  const staff = await requireStaff('change settings');
  const { sections, mayDelete, tiers } = await shown(accountSettings(await currentActor()));
  return (
    <>
      <SettingsHead here="account" may={staff.may} />
      <p className="mt-4 max-w-prose text-muted">{desk('desk-settings.the-sections-of-the-members')}</p>
      <AccountSettings action={saveAccountAction} sections={sections} mayDelete={mayDelete} tiers={tiers} />
    </>
  );
}
