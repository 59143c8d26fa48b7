'use server';

import { revalidatePath } from 'next/cache';
import { draftsOf, fieldsUnder, forForm, given, text, ticked, type FormState } from '@/app/form-state';
import { currentActor } from '@/app/session';
import { askToClearTestData, goLive } from '@/desk/services/go-live';
import { saveAccountSettings } from '@/members/services/save-account-settings';
import { saveDunning } from '@/billing/services/save-dunning';
import { saveMail, saveSender, sendMailAgain } from '@/mail/services/save-mail';
import { saveTax } from '@/documents/services/save-tax';
import { tryMail } from '@/members/services/try-mail';
import { setStaffProof } from '@/desk/services/set-staff-proof';
import { resetProofs } from '@/people/services/one-time-codes';
import { changeStaffRole, inviteStaff, withdrawInvite } from '@/people/services/staff';
import { saveRole } from '@/desk/services/staff-roles';
import { saveStaffSettings } from '@/desk/services/save-staff-settings';
import { saveGeneral } from '@/desk/services/general-settings';
import { saveTheme } from '@/desk/services/theme-settings';
import { reword } from '@/desk/services/wording';
import { desk } from '@/words/desk';

const saved = (message: string) => (): FormState => {
  revalidatePath('/desk/settings', 'layout');
  return { problems: {}, message };
};

export async function saveGeneralAction(_: FormState, form: FormData): Promise<FormState> {
  const input = {
    name: text(form, 'name'),
    language: text(form, 'language'),
    zone: text(form, 'zone'),
    currency: text(form, 'currency'),
    joinRhythm: given(form, 'joinRhythm'),
    joining: given(form, 'joining'),
    registerOfferId: form.has('registerOfferId') ? text(form, 'registerOfferId') || null : undefined,
  };
  return forForm(saveGeneral(await currentActor(), input), () => {
    revalidatePath('/', 'layout');
    return { problems: {}, message: desk('desk.saved') };
  });
}

export async function saveThemeAction(_: FormState, form: FormData, sent?: unknown): Promise<FormState> {
  const input = {
    theme: draftsOf(sent).theme,
    // A mark is sent only where another was chosen, or it was taken away.
    markId: text(form, 'markGone') === 'on' ? null : text(form, 'markId') || undefined,
  };
  return forForm(saveTheme(await currentActor(), input), () => {
    revalidatePath('/', 'layout');
    return { problems: {}, message: desk('desk.saved') };
  });
}

export async function rewordAction(_: FormState, form: FormData): Promise<FormState> {
  const words = text(form, 'back') === 'yes' ? '' : text(form, 'words');
  return forForm(reword(await currentActor(), { key: text(form, 'key'), words }), ({ isOwn }) => {
    revalidatePath('/', 'layout');
    return {
      problems: {},
      message: isOwn
        ? desk('desk-settings.saved-members-read-this-from')
        : desk('desk-settings.the-original-is-used'),
    };
  });
}

export async function saveTaxAction(_: FormState, _form: FormData, sent?: unknown): Promise<FormState> {
  return forForm(
    saveTax(await currentActor(), draftsOf(sent).tax),
    saved(desk('desk-settings.saved-it-applies-from-the')),
  );
}

export async function saveDunningAction(_: FormState, form: FormData): Promise<FormState> {
  const input = { retryDays: text(form, 'retryDays'), graceDays: text(form, 'graceDays') };
  return forForm(
    saveDunning(await currentActor(), input),
    saved(desk('desk-settings.saved-it-applies-to-failures')),
  );
}

export async function saveStaffAction(_: FormState, form: FormData): Promise<FormState> {
  const input = { idleHours: text(form, 'idleHours'), refundAsksAbove: text(form, 'refundAsksAbove') };
  return forForm(saveStaffSettings(await currentActor(), input), saved(desk('desk.saved')));
}

export async function inviteAction(_: FormState, form: FormData): Promise<FormState> {
  const input = { email: text(form, 'email'), role: text(form, 'role'), password: text(form, 'password') };
  return forForm(inviteStaff(await currentActor(), input), saved(desk('desk-settings.invite-sent')));
}

export async function withdrawInviteAction(_: FormState, form: FormData): Promise<FormState> {
  return forForm(withdrawInvite(await currentActor(), text(form, 'id')), saved(desk('desk.removed')));
}

export async function setStaffProofAction(_: FormState, form: FormData): Promise<FormState> {
  const input = { asks: text(form, 'asks') === 'yes', password: text(form, 'password') };
  return forForm(setStaffProof(await currentActor(), input), saved(desk('desk.saved')));
}

export async function resetProofsAction(_: FormState, form: FormData): Promise<FormState> {
  const input = { memberId: text(form, 'member'), password: text(form, 'password') };
  return forForm(resetProofs(await currentActor(), input), saved(desk('desk.saved')));
}

export async function changeRoleAction(_: FormState, form: FormData): Promise<FormState> {
  const role = given(form, 'role');
  const input = {
    memberId: text(form, 'member'),
    // An empty choice takes the role away; a form without the field changes nothing.
    role: role === '' ? null : role,
    password: text(form, 'password'),
  };
  return forForm(changeStaffRole(await currentActor(), input), saved(desk('desk.saved')));
}

/** The boxes whose names begin so: whether each is ticked. */
const boxes = (form: FormData, prefix: string): Record<string, boolean> =>
  Object.fromEntries(
    Object.keys(fieldsUnder(form, `has:${prefix}`)).map((name) => [
      name,
      ticked(form, `${prefix}${name}`) ?? false,
    ]),
  );

export async function saveRoleAction(_: FormState, form: FormData): Promise<FormState> {
  const input = {
    role: text(form, 'role'),
    rights: boxes(form, 'right:'),
    readsAll: ticked(form, 'readsAll'),
    writes: given(form, 'writes'),
    writesIn: boxes(form, 'writesIn:'),
    shutFrom: boxes(form, 'shut:'),
    password: text(form, 'password'),
  };
  return forForm(saveRole(await currentActor(), input), saved(desk('desk.saved')));
}

export async function saveSenderAction(_: FormState, form: FormData): Promise<FormState> {
  const input = { senderName: text(form, 'senderName'), senderAddress: text(form, 'senderAddress').trim() };
  return forForm(
    saveSender(await currentActor(), input),
    saved(desk('desk-settings.saved-mail-is-sent-from')),
  );
}

export async function saveMailAction(_: FormState, form: FormData): Promise<FormState> {
  const input = {
    template: text(form, 'template'),
    isOn: ticked(form, 'isOn'),
    subject: text(form, 'subject'),
    words: text(form, 'words'),
  };
  return forForm(saveMail(await currentActor(), input), saved(desk('desk-settings.saved-it-is-used-from')));
}

export async function tryMailAction(_: FormState, form: FormData): Promise<FormState> {
  return forForm(
    tryMail(await currentActor(), { template: text(form, 'template'), memberId: text(form, 'member') }),
    ({ email }) => ({ problems: {}, message: desk('desk-settings.sent-to-the-member-gets', { email }) }),
  );
}

export async function sendMailAgainAction(_: FormState, form: FormData): Promise<FormState> {
  return forForm(
    sendMailAgain(await currentActor(), text(form, 'id')),
    saved(desk('desk-settings.it-is-being-sent-again')),
  );
}

export async function saveAccountAction(_: FormState, form: FormData, sent?: unknown): Promise<FormState> {
  const drafts = draftsOf(sent);
  const input = {
    sections: drafts.sections,
    tiers: drafts.tiers,
    mayDelete: ticked(form, 'mayDelete'),
  };
  return forForm(saveAccountSettings(await currentActor(), input), saved(desk('desk.saved')));
}

export async function goLiveAction(_: FormState, form: FormData): Promise<FormState> {
  const input = {
    typed: text(form, 'typed'),
    clearsTestData: text(form, 'clears') === 'yes',
    password: text(form, 'password'),
  };
  return forForm(
    goLive(await currentActor(), input),
    () => (revalidatePath('/', 'layout'), { problems: {}, message: desk('desk-settings.the-site-is-live') }),
  );
}

export async function clearTestDataAction(_: FormState, form: FormData): Promise<FormState> {
  return forForm(
    askToClearTestData(await currentActor(), { typed: text(form, 'typed') }),
    saved(desk('desk-settings.the-test-data-is-being-cleared')),
  );
}
