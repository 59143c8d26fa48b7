import type { Metadata } from 'next';
import { currentActor, requireStaff, shown } from '@/app/session';
import { accountSettings } from '@/desk/services/site-settings';
import { AccountSettings } from '@/members/ui/account-settings';
import { saveAccountAction } from '../actions';
import { desk } from '@/words/desk';

export const metadata: Metadata = { title: desk('desk-settings.account-settings') };

export default async function AccountSettingsPage() {
  await requireStaff('change settings');
  const { sections, mayDelete, tiers } = await shown(accountSettings(await currentActor()));
  return (
    <>
      <p className="mt-4 max-w-prose text-muted">{desk('desk-settings.the-sections-of-the-members')}</p>
      <AccountSettings action={saveAccountAction} sections={sections} mayDelete={mayDelete} tiers={tiers} />
    </>
  );
}
