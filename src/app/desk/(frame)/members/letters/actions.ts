'use server';

import { revalidatePath } from 'next/cache';
import { redirect } from 'next/navigation';
import { draftsOf, fieldsUnder, forForm, text, ticked, type FormState } from '@/app/form-state';
import { currentActor } from '@/app/session';
import type { Drafts } from '@/kit/action-form';
import { saveLetterSettings } from '@/members/services/letter-settings';
import { deleteLetter, saveLetter } from '@/members/services/letters';
import { holdLetter, sendLetter, tryLetter } from '@/members/services/send-letter';
import { desk } from '@/words/desk';

const PLACE = '/desk/members/letters';

const saved = (message: string) => (): FormState => {
  revalidatePath(PLACE, 'layout');
  return { problems: {}, message };
};

export async function saveLetterAction(_: FormState, form: FormData, sent?: Drafts): Promise<FormState> {
  const id = text(form, 'id');
  const input = {
    id: id || null,
    version: text(form, 'version'),
    subject: text(form, 'subject'),
    body: draftsOf(sent).body,
    filter: id ? undefined : fieldsUnder(form, 'filter:'),
    toAddresses: ticked(form, 'toAddresses') ?? false,
  };
  return forForm(saveLetter(await currentActor(), input), (letter) => redirect(`${PLACE}/${letter.id}`));
}

export async function tryLetterAction(_: FormState, form: FormData): Promise<FormState> {
  return forForm(tryLetter(await currentActor(), text(form, 'id')), ({ email }) => ({
    problems: {},
    message: desk('desk-letters.tried', { email }),
  }));
}

export async function sendLetterAction(_: FormState, form: FormData): Promise<FormState> {
  const input = { id: text(form, 'id'), version: text(form, 'version') };
  return forForm(sendLetter(await currentActor(), input), saved(desk('desk-letters.begun')));
}

export async function holdLetterAction(_: FormState, form: FormData): Promise<FormState> {
  const input = { id: text(form, 'id'), deed: text(form, 'deed') };
  return forForm(holdLetter(await currentActor(), input), saved(desk('desk.saved')));
}

export async function deleteLetterAction(_: FormState, form: FormData): Promise<FormState> {
  return forForm(deleteLetter(await currentActor(), text(form, 'id')), () => redirect(PLACE));
}

export async function saveLetterSettingsAction(_: FormState, form: FormData): Promise<FormState> {
  const input = {
    lettersPerMinute: text(form, 'lettersPerMinute'),
    asksLetters: ticked(form, 'asksLetters') ?? false,
    countsOpens: ticked(form, 'countsOpens') ?? false,
  };
  return forForm(saveLetterSettings(await currentActor(), input), saved(desk('desk.saved')));
}
