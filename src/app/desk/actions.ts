'use server';

import { revalidatePath } from 'next/cache';
import { cookies } from 'next/headers';
import { forForm, text, type FormState } from '@/app/form-state';
import { currentActor } from '@/app/session';
import { moveClock } from '@/services/move-clock';

export async function moveClockAction(_: FormState, form: FormData): Promise<FormState> {
  const actor = await currentActor();
  return forForm(
    () => moveClock(actor, text(form, 'days')),
    ({ days }) => (
      revalidatePath('/desk', 'layout'),
      { problems: {}, message: `Moved ${days === 1 ? 'a day' : `${days} days`} on.` }
    ),
  );
}

export async function setThemeAction(form: FormData): Promise<void> {
  const theme = text(form, 'theme');
  const jar = await cookies();
  if (theme === 'light' || theme === 'dark')
    jar.set('theme', theme, { path: '/', sameSite: 'lax', maxAge: 365 * 86_400 });
  else jar.delete('theme');
  revalidatePath('/', 'layout');
}
