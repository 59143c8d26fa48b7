import { Link } from '@/kit/link';
import type { MemberId } from '@/core/ids';
import type { ChosenBy, MailTopic } from '@/core/mail-topics';
import { ActionForm, FormMessage, SubmitButton, type FormAction } from '@/kit/action-form';
import { desk } from '@/words/desk';

type Topic = { topic: MailTopic; isOn: boolean; how: ChosenBy | null; when: string };
type Props = {
  memberId: MemberId;
  topics: Topic[];
  /** Null where opens are not counted. */
  opens: { letterId: string; subject: string; isRead: boolean; when: string }[] | null;
  /** Null for staff who may look only. */
  action: FormAction | null;
};

const stateOf = ({ isOn, how, when }: Topic): string => {
  const state = desk(isOn ? 'desk-letters.on' : 'desk-letters.off');
  return how ? desk(`desk-letters.chosen-${how}`, { state, date: when }) : state;
};

/** Which emails a member gets, and which letters they opened. */
export function MemberMails({ memberId, topics, opens, action }: Props) {
  return (
    <section aria-label={desk('desk-letters.emails')}>
      <h2 className="text-xl">{desk('desk-letters.emails')}</h2>
      <ul className="mt-2 grid gap-2">
        {topics.map((topic) => (
          <li key={topic.topic} className="flex flex-wrap items-center justify-between gap-x-3 gap-y-1">
            <span>
              {desk(`desk-letters.topic-${topic.topic}`)}
              <span className="block text-[0.9375rem] text-muted">{stateOf(topic)}</span>
            </span>
            {action && !(topic.how === 'self' && !topic.isOn) && (
              <ActionForm action={action} className="flex flex-wrap items-center gap-2">
                <input type="hidden" name="member" value={memberId} />
                <input type="hidden" name="topic" value={topic.topic} />
                <input type="hidden" name="isOn" value={topic.isOn ? 'no' : 'yes'} />
                <SubmitButton busy={desk('desk.saving')} look="quiet">
                  {desk(topic.isOn ? 'desk-letters.turn-off' : 'desk-letters.turn-on')}
                  <span className="sr-only"> {desk(`desk-letters.topic-${topic.topic}`)}</span>
                </SubmitButton>
                <FormMessage />
              </ActionForm>
            )}
          </li>
        ))}
      </ul>
      {action && <p className="mt-2 text-[0.9375rem] text-muted">{desk('desk-letters.turn-on-hint')}</p>}
      {opens && opens.length > 0 && (
        <>
          <h3 className="mt-3 text-lg">{desk('desk-letters.opens')}</h3>
          <ul className="mt-1">
            {opens.map(({ letterId, subject, isRead, when }) => (
              <li key={letterId} className="flex flex-wrap justify-between gap-x-3">
                <Link href={`/desk/members/letters/${letterId}`} className="hover:underline">
                  {subject}
                </Link>
                <span className="text-muted">
                  {desk(isRead ? 'desk-letters.read-on' : 'desk-letters.opened-on', { date: when })}
                </span>
              </li>
            ))}
          </ul>
        </>
      )}
    </section>
  );
}
