import type { Metadata } from 'next';
import { currentActor, requireStaff, shown } from '@/app/session';
import { accountSettings } from '@/desk/services/site-settings';
import { AccountSettings } from '@/members/ui/account-settings';
import { SettingsHead } from '@/desk/ui/settings-head';
import { saveAccountAction } from '../actions';

export const metadata: Metadata = { title: 'The members’ account' };

export default async function AccountSettingsPage() {
  await requireStaff('set up the site');
  const { sections, mayDelete, tiers } = await shown(accountSettings(await currentActor()));
  return (
    <>
      <SettingsHead here="account" />
      <p className="mt-4 max-w-prose text-muted">
        What members find in their account, from top to bottom. Whoever holds a tier that is arranged in its
        own way sees that one.
      </p>
      <AccountSettings action={saveAccountAction} sections={sections} mayDelete={mayDelete} tiers={tiers} />
    </>
  );
}
