'use server';

import { revalidatePath } from 'next/cache';
import { forForm, text, texts, type FormState } from '@/app/form-state';
import type { ClockReport } from '@/desk/ui/clock-panel';
import { clockReport } from '@/desk/services/clock-report';
import { currentActor, setTheme, THEMES } from '@/app/session';
import { saveMyStaffMails } from '@/people/services/staff-mails';
import { moveClock } from '@/desk/services/move-clock';
import { desk } from '@/words/desk';

export async function moveClockAction(_: FormState, form: FormData): Promise<FormState> {
  return forForm(moveClock(await currentActor(), { days: text(form, 'days') }), ({ days }) => {
    revalidatePath('/desk', 'layout');
    return { problems: {}, message: desk('desk-frame.moved-forward', { days }) };
  });
}

/** What happened since the clock was moved, for the panel that moves it. */
export async function clockReportAction(): Promise<ClockReport | null> {
  const report = await clockReport(await currentActor());
  return report.ok ? report.value : null;
}

export async function setThemeAction(form: FormData): Promise<void> {
  const theme = text(form, 'theme');
  await setTheme(THEMES.find((known) => known === theme));
  revalidatePath('/', 'layout');
}

export async function saveStaffMailsAction(_: FormState, form: FormData): Promise<FormState> {
  return forForm(saveMyStaffMails(await currentActor(), { kinds: texts(form, 'kinds') }), () => {
    revalidatePath('/desk/notifications');
    return { problems: {}, message: desk('desk.saved') };
  });
}
