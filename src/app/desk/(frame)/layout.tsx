import type { Metadata } from 'next';
import type { ReactNode } from 'react';
import { currentActor, currentSite, currentTheme, requireStaff, shown } from '@/app/session';
import { signOutAction } from '@/app/sign-in-action';
import { formatDateTime } from '@/core/instants';
import { may } from '@/core/staff';
import { deskFrame } from '@/desk/services/desk-frame';
import { DeskStrip } from '@/desk/ui/desk-strip';
import { moveClockAction, setThemeAction } from '../actions';

export async function generateMetadata(): Promise<Metadata> {
  return { title: { default: 'Desk', template: `%s · Desk · ${(await currentSite()).name}` } };
}

export default async function DeskLayout({ children }: { children: ReactNode }) {
  // Each page asks again: a layout never authorises.
  const member = await requireStaff();
  const frame = await shown(deskFrame(await currentActor()));
  return (
    <div className="flex min-h-dvh flex-col">
      <DeskStrip
        siteName={frame.siteName}
        isTest={frame.isTest}
        clock={formatDateTime(frame.now, frame.zone)}
        behind={frame.behind}
        staffName={member.name}
        isOwner={may(member.staffRole, 'set up the site')}
        theme={(await currentTheme()) ?? 'auto'}
        viewpoints={frame.viewpoints}
        moveClock={moveClockAction}
        setTheme={setThemeAction}
        signOut={signOutAction}
      />
      <main className="mx-auto w-full max-w-[96rem] flex-1 px-5 py-6">{children}</main>
    </div>
  );
}
