import type { ReactNode } from 'react';
import type { MemberId } from '@/core/ids';
import { ActionForm, FormMessage, SubmitButton, type FormAction } from '@/kit/action-form';
import { Confirm } from '@/kit/confirm';
import { ConfirmAction } from '@/kit/confirm-action';
import { TextField } from '@/kit/field';
import { PasswordAgain } from '@/people/ui/password-again';
import { desk } from '@/words/desk';

type Props = {
  memberId: MemberId;
  name: string;
  isBlocked: boolean;
  actions: {
    sendLink: FormAction;
    block: FormAction;
    unblock: FormAction;
    remove: FormAction;
    /** Null for staff who may not. */
    merge: FormAction | null;
  };
  /** What gives a tier or a pass. */
  give: ReactNode;
};

/** What staff do about a member as a whole. */
export function MemberTools({ memberId, name, isBlocked, actions, give }: Props) {
  return (
    <div className="mt-3 flex flex-wrap items-start gap-2">
      <Confirm
        look="quiet"
        summary={desk('desk-members.give')}
        question={desk('desk-members.give-to', { name })}
      >
        {give}
      </Confirm>
      {isBlocked ? (
        <ActionForm action={actions.unblock} className="grid gap-2">
          <input type="hidden" name="member" value={memberId} />
          <SubmitButton look="quiet" busy={desk('desk.one-moment')}>
            {desk('desk-members.unblock')}
          </SubmitButton>
          <FormMessage />
        </ActionForm>
      ) : (
        <>
          <ActionForm action={actions.sendLink} className="grid gap-2">
            <input type="hidden" name="member" value={memberId} />
            <SubmitButton look="quiet" busy={desk('desk-members.sending')}>
              {desk('desk-members.send-link')}
            </SubmitButton>
            <FormMessage />
          </ActionForm>
          <ConfirmAction
            action={actions.block}
            fields={{ member: memberId }}
            summary={desk('desk-members.block')}
            question={desk('desk-members.block-sure', { name })}
            yes={desk('desk-members.block-yes')}
            busy={desk('desk.one-moment')}
          />
        </>
      )}
      {actions.merge && (
        <Confirm
          look="quiet"
          summary={desk('desk-members.merge')}
          question={desk('desk-members.merge-sure', { name })}
        >
          <ActionForm action={actions.merge} className="grid w-full max-w-md gap-3" emptyWhenDone>
            <FormMessage />
            <input type="hidden" name="member" value={memberId} />
            <TextField
              name="email"
              label={desk('desk-members.merge-email')}
              type="email"
              autoComplete="off"
            />
            <PasswordAgain />
            <SubmitButton busy={desk('desk.one-moment')} look="bad" className="w-fit">
              {desk('desk-members.merge-yes')}
            </SubmitButton>
          </ActionForm>
        </Confirm>
      )}
      <ConfirmAction
        action={actions.remove}
        fields={{ member: memberId }}
        summary={desk('desk-members.remove')}
        question={desk('desk-members.remove-sure', { name })}
        yes={desk('desk-members.remove-yes')}
        busy={desk('desk.one-moment')}
      />
    </div>
  );
}
