import { expect, it } from 'vitest';
import { COMMON_FIELDS, fieldsOf, HOLDS_SECRET, MAILS as KINDS, type MailContent } from './catalogue';
import { wordsOf } from '@/words/words';
import { mergeFieldsOf, renderMail, withoutSecret } from './render';

const site = { language: 'en-GB', zone: 'Europe/London', reworded: {} } as const;
const frame = {
  t: wordsOf(site),
  siteName: 'Lantern Moor',
  siteUrl: 'https://moor.example',
  firstName: 'Maren',
  name: 'Maren Oakley',
  email: 'maren.oakley@moor.example',
};
const next = { at: '2027-07-31T23:30:00Z' as const, amount: 600, credit: 0, currency: 'GBP' };
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
    path: '/account/receipts/of/x',
    methodLabel: '•••• 0179, 09/29',
    nextCharge: null,
  },
  ...(
    [
      'payment-failed',
      'cancelled',
      'ended',
      'ended-unpaid',
      'moved',
      'paused',
      'resumed',
      'dispute-lost',
    ] as const
  ).map((template) => ({
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
    approvePath: null,
  },
  ...(['trial-ends', 'renewal-soon'] as const).map((template) => ({
    template,
    tierName: 'Observer',
    ...next,
    methodLabel: '•••• 0179, 09/29',
    sentence: '£6 a month.',
  })),
  {
    template: 'card-expires',
    tierName: 'Observer',
    methodLabel: '•••• 0179, 09/29',
    expires: '2027-08',
    at: next.at,
    path: '/account/pay/x',
  },
  {
    template: 'refunded',
    tierName: 'Observer',
    amount: 600,
    currency: 'GBP',
    byHand: false,
    endsAccess: true,
  },
  {
    template: 'transfer-due',
    tierName: 'Observer',
    amount: 600,
    currency: 'GBP',
    payee: 'Lantern Moor',
    account: '10-20-30 12345678',
    bank: '',
    reference: 'NK-AAAA',
    until: next.at,
    path: '/account',
  },
  {
    template: 'code',
    why: 'join',
    secret: { code: '482913', path: '/join/code/the-secret-link' },
    minutes: 10,
  },
  { template: 'no-account' },
  { template: 'comment-reply', title: 'Observer notes', path: '/account#comment-x', by: 'Ines' },
  {
    template: 'new-post',
    title: 'Observer notes',
    by: 'Ines',
    html: '<p>Clear.</p>',
    text: 'Clear.',
    rest: 'closed',
    readPath: '/account',
  },
  {
    template: 'letter',
    title: 'Lantern Moor in frost',
    html: '<p>Frost.</p>',
    text: 'Frost.',
    readPath: '/account',
  },
  {
    template: 'bought',
    kind: 'pass',
    name: 'Observer nights',
    amount: 450,
    currency: 'GBP',
    at: next.at,
    until: next.at,
    receiptPath: '/account/receipts/of/x',
    secret: { code: 'the-secret-link', path: '/join/the-secret-link' },
  },
  {
    template: 'bought-code',
    kind: 'gift-card',
    name: 'Observer for a month',
    until: null,
    secret: { code: 'the-secret-link', path: '/join/the-secret-link' },
  },
  {
    template: 'join-invite',
    tierName: 'Observer',
    words: 'Do come.',
    secret: { path: '/join/the-secret-link' },
  },
  { template: 'confirm-mails', secret: { path: '/join/the-secret-link' }, hours: 48 },
  { template: 'address-changed', email: 'new@moor.example' },
  { template: 'passkey-added', passkey: 'Laptop' },
  { template: 'unfinished', tierName: 'Observer', secret: { path: '/join/the-secret-link' }, days: 7 },
  { template: 'staff-invite', role: 'editor', secret: { path: '/desk/invite/the-secret-link' }, days: 7 },
  { template: 'gift', name: 'Observer', until: next.at },
  { template: 'sign-in-link', secret: { path: '/sign-in/link/the-secret-link' }, days: 3 },
  { template: 'read-link', passName: 'Clinic guests', secret: { path: '/pass/the-secret-link' }, hours: 24 },
];

it.each(MAILS.map((mail) => [mail.template, mail] as const))(
  '%s says the same in both parts, and leads back to the site',
  (_, mail) => {
    const { subject, text, html } = renderMail(mail, frame);
    expect(subject).toMatch(/Observer|Lantern Moor/);
    // A letter has the greeting that its owner wrote.
    const isGreeted = mail.template !== 'letter';
    expect(text.includes('Hello Maren,')).toBe(isGreeted);
    expect(text).toMatch(/https:\/\/moor\.example\/(account|join|pass|sign-in|desk)/);
    expect(html.includes('Hello Maren,')).toBe(isGreeted);
  },
);

it('shows dates in the site’s zone', () => {
  // Half past eleven in the evening UTC is the next day in a London summer.
  expect(renderMail(MAILS[0]!, frame).text).toContain('£6.00 on Sun 1 Aug 2027');
});

it.each([
  [
    400,
    200,
    '£4.00 on Sun 1 Aug 2027; £2.00 more is taken',
    '£4.00 is charged to the card ending 0179, expires 09/29 and £2.00 is',
  ],
  [0, 600, 'Your credit pays the next charge, £6.00 on Sun', ': £6.00 is taken from your credit. You don’t'],
])('tells money and credit of a next charge apart: %i and %i', (amount, credit, inWelcome, inReminder) => {
  const told = { ...next, amount, credit };
  const welcome = { ...MAILS[0]!, nextCharge: told } as MailContent;
  expect(renderMail(welcome, frame).text).toContain(inWelcome);
  const reminder = { ...MAILS.find(({ template }) => template === 'renewal-soon')!, ...told } as MailContent;
  expect(renderMail(reminder, frame).text).toContain(inReminder);
});

it('names the joining fee in a receipt', () => {
  expect(renderMail(MAILS[2]!, frame).text).toContain('It includes the joining fee of £10.00');
});

it('secrets that grant access are marked in every template, and left out of what is stored', () => {
  for (const mail of MAILS) {
    const hidden = withoutSecret(mail);
    const holds = JSON.stringify(renderMail(mail, frame)).match(/the-secret-link|482913/g) ?? [];
    expect(holds.length > 0, mail.template).toBe(hidden !== null);
    if (!hidden) continue;
    const { subject, text, html } = renderMail(hidden, frame);
    expect(`${subject} ${text} ${html}`, mail.template).not.toMatch(/the-secret-link|482913/);
    expect(HOLDS_SECRET).toContain(mail.template);
    expect(renderMail(mail, frame).subject).not.toContain('482913');
  }
  expect(HOLDS_SECRET).toHaveLength(MAILS.filter((mail) => withoutSecret(mail)).length);
});

it('greets nobody by a name that was never confirmed', () => {
  const { subject, text, html } = renderMail(MAILS[0]!, { ...frame, firstName: '', name: '' });
  expect(subject).toBe('Welcome to Lantern Moor');
  expect(text).toMatch(/^Hello,\n/);
  expect(html).toContain('Hello,');
});

it('escapes what people typed', () => {
  const { html } = renderMail(MAILS[0]!, { ...frame, firstName: '<img src=x>' });
  expect(html).not.toContain('<img');
});

it('every mail is in the owner’s catalogue, and has the merge fields that are said there', () => {
  expect(new Set(KINDS.map((kind) => kind.template))).toEqual(new Set(MAILS.map((mail) => mail.template)));
  for (const kind of KINDS) {
    const sample = MAILS.find((mail) => mail.template === kind.template)!;
    for (const field of fieldsOf(kind))
      expect(mergeFieldsOf(sample, frame)[field], `${kind.template}: ${field}`).toBeTruthy();
  }
  expect(COMMON_FIELDS).toContain('first name');
});

it('carries the owner’s subject and words before our own, escaped, in both parts', () => {
  const own = { subject: 'Welcome, {first name}', words: 'The <dome> is open.\n\nYour key: {tier}' };
  const { subject, text, html } = renderMail(MAILS[0]!, frame, own);
  expect(subject).toBe('Welcome, Maren');
  expect(text).toMatch(/Hello Maren,\n\nThe <dome> is open\.\n\nYour key: Observer\n\nYou now have Observer/);
  expect(html).toContain('The &#60;dome&#62; is open.');
});
