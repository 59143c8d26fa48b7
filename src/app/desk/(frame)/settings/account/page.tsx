import type { Metadata } from 'next';
import { currentActor, requireStaff, shown } from '@/app/session';
import { accountSettings } from '@/desk/services/site-settings';
import { AccountSettings } from '@/members/ui/account-settings';
import { SettingsHead } from '@/desk/ui/settings-head';
import { saveAccountAction } from '../actions';

export const metadata: Metadata = { title: 'Account · Settings' };

export default async function AccountSettingsPage() {
  await requireStaff('set up the site');
  const { sections, mayDelete, tiers } = await shown(accountSettings(await currentActor()));
  return (
    <>
      <SettingsHead here="account" />
      <p className="mt-4 max-w-prose text-muted">
        The sections of the members’ account, from top to bottom. Members of a tier with its own arrangement
        see that one.
      </p>
      <AccountSettings action={saveAccountAction} sections={sections} mayDelete={mayDelete} tiers={tiers} />
    </>
  );
}
