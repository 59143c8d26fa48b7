import { CURRENT } from '@/core/billing/states';
import type { Metadata } from 'next';
import { Link } from '@/kit/link';
import { redirect } from 'next/navigation';
import { cache } from 'react';
import { currentActor, deskWords, requireStaff, shown } from '@/app/session';
import { giftChoices } from '@/members/services/gift-choices';
import type { Right } from '@/core/staff';
import { memberFile, type TimelineEntry } from '@/members/services/member-file';
import { mailTopicsOf } from '@/mail/services/mail-topics';
import { lettersOpenedBy } from '@/members/services/letter-opens';
import { groupsOfMember } from '@/members/services/groups';
import { localDate, localMonth } from '@/core/calendar';
import { GiveForm } from '@/members/ui/give-form';
import { HoldingsList } from '@/members/ui/holdings-list';
import { MemberTools } from '@/members/ui/member-tools';
import { CanRead } from '@/members/ui/can-read';
import { MemberGroups } from '@/members/ui/member-groups';
import { MemberMails } from '@/members/ui/member-mails';
import { MemberLanes } from '@/members/ui/member-lanes';
import { MemberNotes } from '@/members/ui/member-notes';
import { MemberTimeline } from '@/members/ui/member-timeline';
import { NextCharge } from '@/billing/ui/next-charge';
import { StaffActions } from '@/billing/ui/staff-actions';
import { methodWords } from '@/words/methods';
import { LifeMark } from '@/kit/state-mark';
import { changeAction } from '../../money/actions';
import { addMemberAction, removeMemberAction } from '../groups/actions';
import {
  addNoteAction,
  blockAction,
  changeGiftAction,
  giveAction,
  mergeAction,
  removeAccountAction,
  removeNoteAction,
  sendLinkAction,
  setMailTopicAction,
  takeAction,
  unblockAction,
} from '../actions';
import { desk } from '@/words/desk';

type Props = { params: Promise<{ id: string }> };

/** Read once a request: for the head and for the page. */
const fileOf = cache(async (id: string) => memberFile(await currentActor(), id));

export async function generateMetadata({ params }: Props): Promise<Metadata> {
  const found = await fileOf((await params).id);
  const member = found.ok ? found.value.member : null;
  return {
    title: desk('desk-members.member-title', { name: member?.name || member?.email || desk('desk.member') }),
  };
}

/** Where more is known of an entry of the time line, as far as the one who looks may see it. */
function hrefOf({ of, id }: TimelineEntry, may: (right: Right) => boolean): string | undefined {
  if (of === 'payment' && may('see money')) return `/desk/money/payments?open=${id}`;
  return of === 'mail' && may('manage members') ? `/desk/settings/mail/log?open=${id}` : undefined;
}

export default async function MemberPage({ params }: Props) {
  const t = await deskWords();
  const staff = await requireStaff('see members');
  const { id } = await params;
  const { member, account, timeline, lanes, answers, notes } = await shown(fileOf(id));
  if (member.mergedInto) redirect(`/desk/members/${member.mergedInto}`);
  const mayManage = staff.may('manage members') && member.deletedAt === null;
  const { held, tiers, passes } = await shown(giftChoices(await currentActor(), id));
  const topics = await shown(mailTopicsOf(await currentActor(), id));
  const opens = await shown(lettersOpenedBy(await currentActor(), id));
  const today = localDate(account.now, account.zone);
  const name = member.name || member.email;
  return (
    <>
      <p>
        <Link href="/desk/members" className="text-spruce underline">
          {desk('desk.members')}
        </Link>
      </p>
      <h1 className="mt-1 text-3xl" id="desk-main">
        {member.name || member.email}
      </h1>
      <p className="text-muted">
        {desk('desk-members.joined-on', { email: member.email, date: t.date(member.joinedAt) })}
        {member.staffRole && ` · ${member.staffRole}`}
        {` · ${desk(member.emailConfirmedAt ? 'desk-members.email-confirmed' : 'desk-members.email-not-confirmed')}`}
      </p>
      {member.blockedAt && (
        <p className="mt-2 w-fit rounded-md bg-closed-wash px-3 py-1.5 font-medium text-closed">
          {desk('desk-members.blocked-since', { date: t.date(member.blockedAt) })}
        </p>
      )}
      {mayManage && !member.staffRole && (
        <MemberTools
          memberId={member.id}
          name={name}
          isBlocked={member.blockedAt !== null}
          actions={{
            sendLink: sendLinkAction,
            block: blockAction,
            unblock: unblockAction,
            remove: removeAccountAction,
            merge: staff.may('set up the site') ? mergeAction : null,
          }}
          give={
            <GiveForm action={giveAction} memberId={member.id} tiers={tiers} passes={passes} today={today} />
          }
        />
      )}
      <div className="mt-6 grid grid-cols-1 items-start gap-10 lg:grid-cols-[minmax(0,1fr)_26rem]">
        <section>
          <MemberLanes
            months={lanes.months.map(({ at, left }) => ({
              name: t.shortMonth(localMonth(at, account.zone)),
              left,
            }))}
            now={lanes.now}
            holds={lanes.holds}
            money={lanes.money.map(({ id: dot, left, at, amount, currency, is }) => ({
              id: dot,
              left,
              is,
              words: desk(`desk-members.lane-${is}`, { amount: t.money(amount, currency), date: t.date(at) }),
            }))}
            reads={
              lanes.reads &&
              lanes.reads.map(({ id: read, left, title, at }) => ({
                id: read,
                left,
                words: desk('desk-members.lane-read', { title, date: t.date(at) }),
              }))
            }
          />
          <h2 className="mt-6 text-xl">{desk('desk-members.what-happened-and-what-comes')}</h2>
          <MemberTimeline
            entries={timeline.map((entry) => ({
              ...entry,
              when: entry.isDay ? t.date(entry.at) : t.dateTime(entry.at),
              amount: entry.money && t.money(entry.money.amount, entry.money.currency),
              href: hrefOf(entry, staff.may),
            }))}
          />
        </section>
        <div className="grid gap-4">
          <h2 className="text-xl">{desk('desk-members.holds-now')}</h2>
          <HoldingsList
            memberId={member.id}
            today={today}
            actions={mayManage ? { change: changeGiftAction, take: takeAction } : null}
            rows={[
              ...account.holdings
                .filter((holding) => holding.isNow)
                .map((holding) => ({
                  id: holding.id,
                  name: holding.tier?.name ?? holding.tierId,
                  keyCut: holding.tier?.keyCut ?? null,
                  passId: null,
                  isGift: holding.why !== 'subscription',
                  words: holding.untilAt
                    ? desk('desk-members.held-until', {
                        why: holding.why,
                        since: t.date(holding.fromAt),
                        until: t.until(holding.untilAt),
                      })
                    : desk('desk-members.held', { why: holding.why, since: t.date(holding.fromAt) }),
                })),
              ...held.map((pass) => ({
                id: pass.id,
                name: pass.pass,
                keyCut: null,
                passId: pass.passId,
                isGift: false,
                words: pass.until
                  ? desk('desk-members.pass-why-until', {
                      why: pass.why,
                      since: t.date(pass.since),
                      until: t.until(pass.until),
                    })
                  : desk('desk-members.pass-why', { why: pass.why, since: t.date(pass.since) }),
              })),
            ]}
          />
          {account.subscriptions.map(({ subscription, offer, sentence, next, deeds }) => (
            <section
              key={subscription.id}
              className="rounded-card border border-line bg-surface p-4"
              aria-label={desk('desk-members.subscription', { name: offer.name })}
            >
              <div className="flex items-center justify-between gap-3">
                <h3 className="text-lg">
                  {offer.name}{' '}
                  <span className="text-[0.9375rem] font-normal text-muted">
                    {desk('desk-members.version', { version: offer.version })}
                  </span>
                </h3>
                <span className="flex gap-1">
                  <LifeMark t={t} state={subscription.state} />
                  {subscription.disputes.length > 0 && <LifeMark t={t} state="disputed" />}
                </span>
              </div>
              <p>{sentence}</p>
              <p className="figures mt-1 text-muted">
                {desk('desk-members.next-charge')} <NextCharge t={t} next={next} />
              </p>
              <Link href={`/desk/money?open=${subscription.id}`} className="text-spruce underline">
                {desk('desk-members.its-history-and-payments')}
              </Link>
              {subscription.methodLabel && (
                <p className="text-muted">{methodWords(subscription.methodLabel, t)}</p>
              )}
              {mayManage && (
                <StaffActions
                  key={`${subscription.state}:${String(subscription.pauses)}`}
                  id={subscription.id}
                  state={subscription.state}
                  pauses={subscription.pauses}
                  deeds={deeds}
                  canSwitch={CURRENT.has(subscription.state) && subscription.disputes.length === 0}
                  until={subscription.paidThrough && t.until(subscription.paidThrough)}
                  memberId={member.id}
                  action={changeAction}
                />
              )}
            </section>
          ))}
          <CanRead memberId={member.id} name={member.name || member.email} />
          <MemberGroups
            memberId={member.id}
            {...await shown(groupsOfMember(await currentActor(), member.id))}
            actions={mayManage ? { add: addMemberAction, remove: removeMemberAction } : null}
          />
          {member.deletedAt === null && (
            <MemberMails
              memberId={member.id}
              topics={topics.map(({ topic, isOn, choice }) => ({
                topic,
                isOn,
                how: choice?.how ?? null,
                when: choice ? t.date(choice.at) : '',
              }))}
              opens={
                opens &&
                opens.map(({ letterId, subject, openedAt, readAt }) => ({
                  letterId,
                  subject,
                  isRead: readAt !== null,
                  when: t.date(openedAt),
                }))
              }
              action={mayManage ? setMailTopicAction : null}
            />
          )}
          <MemberNotes
            memberId={member.id}
            notes={notes.map((note) => ({ ...note, when: t.date(note.at) }))}
            actions={mayManage ? { add: addNoteAction, remove: removeNoteAction } : null}
          />
          {answers.length > 0 && (
            <section aria-label={desk('desk-members.answers-at-joining')}>
              <h2 className="text-xl">{desk('desk-members.answered-at-joining')}</h2>
              <dl className="mt-2 divide-y divide-line">
                {answers.map((answer) => (
                  <div key={`${answer.fieldId}:${answer.at}`} className="flex justify-between gap-4 py-1.5">
                    <dt className="text-muted">{answer.label}</dt>
                    <dd className="text-right">{answer.value}</dd>
                  </div>
                ))}
              </dl>
            </section>
          )}
        </div>
      </div>
    </>
  );
}
