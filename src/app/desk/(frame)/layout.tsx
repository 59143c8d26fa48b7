import type { Metadata } from 'next';
import { cookies } from 'next/headers';
import type { ReactNode } from 'react';
import { requireStaff } from '@/app/session';
import { signOutAction } from '@/app/sign-in-action';
import { formatDateTime } from '@/core/calendar';
import { may } from '@/core/staff';
import { pool } from '@/store/db';
import { listTiers } from '@/store/tiers';
import { siteNow } from '@/services/clock';
import { workBehindClock } from '@/services/move-clock';
import { currentSite } from '@/services/site';
import { DeskStrip } from '@/ui/desk/desk-strip';
import { moveClockAction, setThemeAction } from '../actions';

export async function generateMetadata(): Promise<Metadata> {
  return { title: { default: 'Desk', template: `%s · Desk · ${(await currentSite()).name}` } };
}

export default async function DeskLayout({ children }: { children: ReactNode }) {
  // Each page asks again: a layout never authorises.
  const member = await requireStaff();
  const site = await currentSite();
  const theme = (await cookies()).get('theme')?.value;
  return (
    <div className="flex min-h-dvh flex-col">
      <DeskStrip
        siteName={site.name}
        isTest={site.mode === 'test'}
        clock={formatDateTime(siteNow(site), site.zone)}
        behind={await workBehindClock()}
        staffName={member.name}
        isOwner={may(member.staffRole, 'set up the site')}
        theme={theme === 'light' || theme === 'dark' ? theme : 'auto'}
        viewpoints={(await listTiers(pool())).map(({ id, name, keyCut }) => ({ id, name, keyCut }))}
        moveClock={moveClockAction}
        setTheme={setThemeAction}
        signOut={signOutAction}
      />
      <main className="mx-auto w-full max-w-[96rem] flex-1 px-5 py-6">{children}</main>
    </div>
  );
}
