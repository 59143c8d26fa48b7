import { addLength, type Instant } from '@/core/calendar';
import { plainText } from '@/core/content/prose';
import type { MergeFields } from '@/core/mail-words';
import type { MailContent, MailFrame, Template } from '@/mail/content';
import { mergeFieldsOf } from '@/mail/render';
import { mailWords, type Words } from '@/mail/templates';
import { pool } from '@/platform/store/db';
import { findMember, type Member } from '@/people/store/members';
import type { Site } from '@/platform/store/site';
import { siteNow } from '@/platform/clock';
import { memberAccount, type MemberAccount } from '@/billing/services/lib/member-account';
import { currentSite } from '@/platform/site';
import { mailFrame } from '@/mail/services/lib/write-mail';
import { listMembers, type MemberRow } from '@/members/store/member-lists';

export type MailPreview = {
  member: Pick<Member, 'id' | 'name' | 'email'>;
  ours: Words;
  fields: MergeFields;
  hello: string;
};

/** How a mail would read for a real member, with what they hold and pay; what they have not, is made up from what is on sale. */
export async function previewFor(template: Template, memberId: string | null): Promise<MailPreview | null> {
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
    hello: `Hello${frame.firstName ? ` ${frame.firstName}` : ''},`,
  };
}

export async function sampleFor(template: Template, site: Site, member: Member): Promise<MailContent> {
  return sample(template, site, await memberAccount(member), mailFrame(site, member), siteNow(site));
}

/** Members to choose from for a preview: those who joined last. */
export async function previewMembers(): Promise<MemberRow[]> {
  const site = await currentSite();
  return listMembers(pool(), site.mode, siteNow(site), {}, { limit: 30 });
}

function sample(
  template: Template,
  site: Site,
  account: MemberAccount,
  frame: MailFrame,
  now: Instant,
): MailContent {
  const view = account.subscriptions[0];
  const payment = account.payments.find((one) => one.state === 'succeeded') ?? account.payments[0];
  const tierName = view?.tier?.name ?? view?.offer.name ?? site.name;
  const sentence = view?.sentence ?? '';
  const nextCharge = view?.next ?? null;
  const at =
    nextCharge?.at ?? view?.subscription.paidThrough ?? addLength(now, { n: 14, unit: 'day' }, site.zone);
  const amount = nextCharge?.amount ?? payment?.amount ?? 600;
  const currency = nextCharge?.currency ?? payment?.currency ?? site.currency;
  const methodLabel = view?.subscription.methodLabel ?? null;
  switch (template) {
    case 'welcome':
    case 'switched': {
      const words = view?.tier?.welcomeShown.includes('mail') ? plainText(view.tier.welcomeWords).trim() : '';
      return { template, tierName, sentence, words, nextCharge };
    }
    case 'receipt':
      return {
        template,
        tierName,
        amount: payment?.amount ?? amount,
        currency,
        joiningFee: Number(payment?.joiningFee ?? 0n),
        credit: 0,
        paidAt: payment?.at ?? now,
        path: '/account/receipts',
        methodLabel,
        nextCharge,
      };
    case 'payment-failed':
    case 'cancelled':
    case 'ended':
    case 'ended-unpaid':
    case 'moved':
    case 'paused':
    case 'resumed':
    case 'dispute-lost':
      return { template, tierName, nextTry: at, until: at, sentence };
    case 'refunded':
      return {
        template,
        tierName,
        amount: payment?.amount ?? amount,
        currency,
        byHand: false,
        endsAccess: false,
      };
    case 'transfer-due':
      return {
        template,
        tierName,
        amount,
        currency,
        payee: site.name,
        account: '…',
        bank: '',
        reference: '…',
        until: at,
        path: '/account',
      };
    case 'trial-ends':
    case 'renewal-soon':
      return {
        template,
        tierName,
        at,
        amount,
        credit: nextCharge?.credit ?? 0,
        currency,
        methodLabel,
        sentence,
      };
    case 'card-expires': {
      const expires = view?.subscription.methodExpires ?? at.slice(0, 7);
      return { template, tierName, methodLabel, expires, at, path: '/account' };
    }
    case 'price-changes':
      return { template, tierName, from: at, before: sentence, after: sentence, approvePath: null };
    case 'code':
      return { template, why: 'sign-in', secret: { path: '/sign-in', code: '123456' }, minutes: 10 };
    case 'no-account':
      return { template };
    case 'address-changed':
      return { template, email: frame.email };
    case 'unfinished':
      return { template, tierName, secret: { path: '/join' }, days: 7 };
  }
}
