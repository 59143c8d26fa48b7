import type { Metadata } from 'next';
import type { ReactNode } from 'react';
import { currentActor, currentSite, currentTheme, deskWords, requireStaff, shown } from '@/app/session';
import { signOutAction } from '@/app/sign-in-action';
import { deskFrame } from '@/desk/services/desk-frame';
import { findSomeMembers } from '@/app/find-members-action';
import { FormWordsOf, MemberFormsOf } from '@/app/form-words';
import { Toasts } from '@/kit/toasts';
import { LeaveGuard } from '@/kit/leave-guard';
import { DeskWordsProvider } from '@/kit/desk-words';
import { deskLocale } from '@/words/languages';
import { DeskStrip } from '@/desk/ui/desk-strip';
import { clockReportAction, moveClockAction, setThemeAction } from '../actions';
import { desk } from '@/words/desk';

export async function generateMetadata(): Promise<Metadata> {
  return {
    title: {
      default: desk('desk-frame.desk'),
      template: desk('desk-frame.tab-title', { page: '%s', site: (await currentSite()).name }),
    },
  };
}

export default async function DeskLayout({ children }: { children: ReactNode }) {
  const t = await deskWords();
  // Each page asks again: a layout never authorises.
  const member = await requireStaff();
  const site = await currentSite();
  const frame = await shown(deskFrame(await currentActor()));
  return (
    <div lang={deskLocale(site.language)} className="flex min-h-dvh flex-col">
      <DeskStrip
        siteName={frame.siteName}
        isTest={frame.isTest}
        clock={t.dateTime(frame.now)}
        behind={frame.behind}
        staffName={member.name}
        rights={member.powers?.rights ?? []}
        theme={(await currentTheme()) ?? 'auto'}
        viewpoints={frame.viewpoints}
        findMembers={findSomeMembers}
        moveClock={moveClockAction}
        clockReport={clockReportAction}
        setTheme={setThemeAction}
        signOut={signOutAction}
      />
      <main className="mx-auto w-full max-w-[96rem] flex-1 px-5 py-6">
        <DeskWordsProvider value={{ language: site.language, zone: site.zone }}>
          <FormWordsOf t={t}>
            <MemberFormsOf t={t} email={member.email}>
              <Toasts>
                <LeaveGuard>{children}</LeaveGuard>
              </Toasts>
            </MemberFormsOf>
          </FormWordsOf>
        </DeskWordsProvider>
      </main>
    </div>
  );
}
