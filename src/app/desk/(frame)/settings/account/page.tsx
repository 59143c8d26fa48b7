import type { Metadata } from 'next';
import { requireStaff } from '@/app/session';
import { wholeArrangement } from '@/core/account-sections';
import { currentSite } from '@/services/site';
import { pool } from '@/store/db';
import { listTiers } from '@/store/tiers';
import { AccountSettings } from '@/ui/desk/account-settings';
import { SettingsHead } from '@/ui/desk/settings-head';
import { saveAccountAction } from '../actions';

export const metadata: Metadata = { title: 'The members’ account' };

export default async function AccountSettingsPage() {
  await requireStaff('set up the site');
  const { accountSections, mayDeleteAccount } = await currentSite();
  const tiers = (await listTiers(pool())).filter((tier) => !tier.retiredAt);
  return (
    <>
      <SettingsHead here="account" />
      <p className="mt-4 max-w-prose text-muted">
        What members find in their account, from top to bottom. Whoever holds a tier that is arranged in its
        own way sees that one.
      </p>
      <AccountSettings
        action={saveAccountAction}
        sections={wholeArrangement(accountSections)}
        mayDelete={mayDeleteAccount}
        tiers={tiers.map(({ id, name, accountSections: own }) => ({
          id,
          name,
          sections: own && wholeArrangement(own),
        }))}
      />
    </>
  );
}
