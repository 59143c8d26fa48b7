import { expect, it } from 'vitest';
import { renderMail, type MailContent } from './templates';

const frame = {
  siteName: 'Lantern Moor',
  siteUrl: 'https://moor.example',
  zone: 'Europe/London',
  firstName: 'Maren',
};
const next = { at: '2027-07-31T23:30:00Z', amount: 600, currency: 'GBP' };
const MAILS: MailContent[] = [
  ...(['welcome', 'switched'] as const).map((template) => ({
    template,
    tierName: 'Observer',
    sentence: '£6 a month.',
    words: 'Bring a chair.\n\nAnd a flask.',
    nextCharge: next,
  })),
  {
    template: 'receipt',
    tierName: 'Observer',
    amount: 1600,
    currency: 'GBP',
    joiningFee: 1000,
    credit: 348,
    paidAt: next.at,
    methodLabel: 'card ending 0179',
    nextCharge: null,
  },
  ...(['payment-failed', 'cancelled', 'ended', 'ended-unpaid', 'moved'] as const).map((template) => ({
    template,
    tierName: 'Observer',
    until: next.at,
    nextTry: next.at,
    sentence: '£7 a month.',
  })),
  {
    template: 'price-changes',
    tierName: 'Observer',
    from: next.at,
    before: '£6 a month.',
    after: '£7 a month.',
  },
  { template: 'prove-address', tierName: 'Observer', path: '/join/confirm/x' },
  { template: 'unfinished', tierName: 'Observer', path: '/join/resume/x', days: 7 },
];

it.each(MAILS.map((mail) => [mail.template, mail] as const))(
  '%s says the same in both parts, and leads back to the site',
  (_, mail) => {
    const { subject, text, html } = renderMail(mail, frame);
    expect(subject).toMatch(/Observer|Lantern Moor/);
    expect(text).toContain('Hello Maren,');
    expect(text).toMatch(/https:\/\/moor\.example\/(account|join)/);
    expect(html).toContain('Hello Maren,');
  },
);

it('shows dates in the site’s zone', () => {
  // Half past eleven in the evening UTC is the next day in a London summer.
  expect(renderMail(MAILS[0]!, frame).text).toContain('£6.00 on Sun 1 Aug 2027');
});

it('names the joining fee in a receipt', () => {
  expect(renderMail(MAILS[2]!, frame).text).toContain('It includes the joining fee of £10.00');
});

it('escapes what people typed', () => {
  const { html } = renderMail(MAILS[0]!, { ...frame, firstName: '<img src=x>' });
  expect(html).not.toContain('<img');
});
