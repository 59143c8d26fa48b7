'use server';

import { revalidatePath } from 'next/cache';
import { redirect } from 'next/navigation';
import { draftsOf, forForm, text, type FormState } from '@/app/form-state';
import { currentActor } from '@/app/session';
import { addMember } from '@/members/services/add-member';
import { blockMember, unblockMember } from '@/members/services/block-member';
import { changeGift, giveTier, takeGift } from '@/members/services/gifts';
import { givePass, takePass } from '@/members/services/given-passes';
import { inviteToJoin } from '@/members/services/invite-to-join';
import { mergeMembers } from '@/members/services/merge-members';
import { removeMember } from '@/members/services/remove-member';
import { sendSignInLink } from '@/members/services/send-sign-in-link';
import { addNote, removeNote } from '@/members/services/member-notes';
import { setMailTopic } from '@/mail/services/mail-topics';
import { switchForMember } from '@/checkout/services/switch-for-member';
import { desk } from '@/words/desk';

const reload = (message: string) => (): FormState => {
  revalidatePath('/desk/members', 'layout');
  return { problems: {}, message };
};

export async function addNewMemberAction(_: FormState, form: FormData): Promise<FormState> {
  const input = { email: text(form, 'email'), name: text(form, 'name') };
  return forForm(addMember(await currentActor(), input), ({ id }) => redirect(`/desk/members/${id}`));
}

export async function switchForMemberAction(_: FormState, form: FormData): Promise<FormState> {
  const input = { quoteId: text(form, 'quoteId'), requestId: text(form, 'requestId') };
  return forForm(switchForMember(await currentActor(), input), reload(desk('desk-members.switched')));
}

export async function addNoteAction(_: FormState, form: FormData): Promise<FormState> {
  const input = {
    memberId: text(form, 'member'),
    words: text(form, 'words'),
    isShown: text(form, 'isShown') === 'yes',
  };
  return forForm(addNote(await currentActor(), input), reload(desk('desk.saved')));
}

export async function setMailTopicAction(_: FormState, form: FormData): Promise<FormState> {
  const input = {
    memberId: text(form, 'member'),
    topic: text(form, 'topic'),
    isOn: text(form, 'isOn') === 'yes',
  };
  return forForm(setMailTopic(await currentActor(), input), reload(desk('desk.saved')));
}

export async function removeNoteAction(_: FormState, form: FormData): Promise<FormState> {
  const input = { memberId: text(form, 'member'), id: text(form, 'note') };
  return forForm(removeNote(await currentActor(), input), reload(desk('desk.removed')));
}

export async function giveAction(_: FormState, _form: FormData, sent?: unknown): Promise<FormState> {
  const { kind, id, ...gift } = draftsOf(draftsOf(sent).gift);
  const actor = await currentActor();
  const given =
    kind === 'pass' ? givePass(actor, { ...gift, passId: id }) : giveTier(actor, { ...gift, tierId: id });
  return forForm(given, ({ name }) => reload(desk('desk-members.given', { name }))());
}

export async function changeGiftAction(_: FormState, _form: FormData, sent?: unknown): Promise<FormState> {
  return forForm(changeGift(await currentActor(), draftsOf(sent).change), reload(desk('desk.saved')));
}

/** Ends a tier that was given, or a pass. */
export async function takeAction(_: FormState, form: FormData): Promise<FormState> {
  const [memberId, id, passId] = [text(form, 'member'), text(form, 'id'), text(form, 'pass')];
  const actor = await currentActor();
  const taken = passId
    ? takePass(actor, { memberId, id, passId })
    : takeGift(actor, { memberId, holdingId: id });
  return forForm(taken, reload(desk('desk-members.ended')));
}

export async function sendLinkAction(_: FormState, form: FormData): Promise<FormState> {
  return forForm(sendSignInLink(await currentActor(), text(form, 'member')), ({ email }) =>
    reload(desk('desk-members.link-sent', { email }))(),
  );
}

export async function blockAction(_: FormState, form: FormData): Promise<FormState> {
  return forForm(
    blockMember(await currentActor(), text(form, 'member')),
    reload(desk('desk-members.blocked')),
  );
}

export async function unblockAction(_: FormState, form: FormData): Promise<FormState> {
  return forForm(
    unblockMember(await currentActor(), text(form, 'member')),
    reload(desk('desk-members.unblocked')),
  );
}

export async function mergeAction(_: FormState, form: FormData): Promise<FormState> {
  const input = {
    memberId: text(form, 'member'),
    email: text(form, 'email'),
    password: text(form, 'password'),
  };
  return forForm(mergeMembers(await currentActor(), input), reload(desk('desk-members.merged')));
}

export async function removeAccountAction(_: FormState, form: FormData): Promise<FormState> {
  return forForm(removeMember(await currentActor(), text(form, 'member')), () => redirect('/desk/members'));
}

export async function inviteToJoinAction(_: FormState, form: FormData): Promise<FormState> {
  const input = {
    addresses: text(form, 'addresses'),
    offerId: text(form, 'offerId'),
    words: text(form, 'words'),
  };
  return forForm(inviteToJoin(await currentActor(), input), ({ invited, already, unreadable }) => ({
    problems: {},
    message: [
      desk('desk-members.invited', { count: invited }),
      already.length > 0 && desk('desk-members.invited-already', { addresses: already.join(', ') }),
      unreadable.length > 0 && desk('desk-members.invited-unreadable', { addresses: unreadable.join(', ') }),
    ]
      .filter(Boolean)
      .join(' '),
  }));
}
