import { addLength } from '@/core/calendar';
import type { Instant } from '@/core/instants';
import { plainText } from '@/core/content/prose';
import type { MergeFields } from '@/core/mail-words';
import { mailWords, sampleOf, type MailContent, type Template } from '@/mail/catalogue';
import type { MailFrame, MailWords, SampleFacts } from '@/mail/define';
import { helloTo, mergeFieldsOf } from '@/mail/render';
import { pool } from '@/platform/store/db';
import { findMember, type Member } from '@/people/store/members';
import type { Site } from '@/platform/store/site';
import { wordsOf } from '@/words/words';
import { siteNow } from '@/platform/clock';
import { memberAccount, type MemberAccount } from '@/billing/services/lib/member-account';
import { currentSite } from '@/platform/site';
import { mailFrame } from '@/mail/services/lib/write-mail';
import { listMembers } from '@/members/store/member-lists';
import type { MemberId } from '@/core/ids';

export type MailPreview = {
  member: Pick<Member, 'id' | 'name' | 'email'>;
  ours: MailWords;
  fields: MergeFields;
  hello: string;
};

/** How a mail would read for a real member, with what they hold and pay; what they have not, is made up from what is on sale. */
export async function previewFor(template: Template, memberId: MemberId | null): Promise<MailPreview | null> {
  const site = await currentSite();
  const [newest] = await previewMembers();
  const member = memberId
    ? await findMember(pool(), memberId)
    : newest && (await findMember(pool(), newest.id));
  if (!member) return null;
  const frame = mailFrame(site, member);
  const content = await sampleFor(template, site, member);
  return {
    member,
    ours: mailWords(content, frame),
    fields: mergeFieldsOf(content, frame),
    hello: helloTo(frame),
  };
}

export async function sampleFor(template: Template, site: Site, member: Member): Promise<MailContent> {
  const account = await memberAccount(member, wordsOf(site));
  return sampleOf(template, factsOf(site, account, mailFrame(site, member), siteNow(site)));
}

/** Members to choose from for a preview: those who joined last. */
export async function previewMembers(): Promise<MailPreview['member'][]> {
  const site = await currentSite();
  const rows = await listMembers(pool(), site.mode, siteNow(site), {}, { limit: 30 });
  return rows.map(({ id, name, email }) => ({ id, name, email }));
}

/** What a member has, for a sample; what they have not is made up from what is on sale. */
function factsOf(site: Site, account: MemberAccount, frame: MailFrame, now: Instant): SampleFacts {
  const view = account.subscriptions[0];
  const payment = account.payments.find((one) => one.state === 'succeeded') ?? account.payments[0];
  const nextCharge = view?.next ?? null;
  const tier = view?.tier;
  return {
    siteName: site.name,
    tierName: tier?.name ?? view?.offer.name ?? site.name,
    sentence: view?.sentence ?? '',
    welcome: tier?.welcomeShown.includes('mail') ? plainText(tier.welcomeWords).trim() : '',
    nextCharge,
    at: nextCharge?.at ?? view?.subscription.paidThrough ?? addLength(now, { n: 14, unit: 'day' }, site.zone),
    now,
    amount: nextCharge?.amount ?? payment?.amount ?? 600,
    currency: nextCharge?.currency ?? payment?.currency ?? site.currency,
    payment: payment ? { ...payment, joiningFee: Number(payment.joiningFee) } : null,
    methodLabel: view?.subscription.methodLabel ?? null,
    expires: view?.subscription.methodExpires ?? null,
    email: frame.email,
  };
}
