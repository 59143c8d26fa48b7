import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { de } from './de';
import { en, members, PARTS } from './en';
import { DESK_PARTS } from './en/desk';
import { deskProblems } from './en/desk-problems';
import { deskWordsOf } from './desk';
import { LANGUAGES } from './languages';
import { namesIn, readable } from './message';
import { messagesUnder, wordsOf } from './words';

/** Put together from a state or a kind, so that no source has the whole key. */
const BY_STATE = [
  'state.',
  'staff-mail.',
  'desk-mails.',
  'desk-members.section-',
  'desk-members.term-',
  'desk-settings.role-',
  'desk-settings.audit-kind-',
  'desk-settings.audit-from',
  'desk-settings.audit-to',
  'desk-settings.right-',
  'desk-settings.area-',
  'desk-settings.joining-',
  'desk-settings.topic-',
  'desk-settings.message-',
  'desk-letters.kind-',
  'desk-products.kind-',
  'desk-letters.gets-',
  'desk-letters.state-',
  'desk-letters.closed-',
  'desk-letters.how-',
  'desk-letters.topic-',
  'desk-letters.chosen-',
  'desk-members.shows-',
  'desk-members.lane-',
  'desk-members.source-',
  'desk-members.facet-',
  'desk-members.deed-',
  'desk-members.sure-',
  'desk-members.column-',
  'desk-members.dates-',
  'desk-members.line-',
  'desk-members.import-checking',
  'desk-members.import-bringing',
  'desk-content.state-',
  'desk-access.layer-',
  'desk-access.asker-',
  'desk-access.unit-',
  'desk-access.begin-',
  'desk-access.state-',
  'desk-content.comment-state-',
  'desk-content.no-comments-',
  'desk-content.entry-',
  'desk-content.look-',
  'desk-content.audience-',
  'desk-content.day-',
  'desk-content.role-',
  'desk-content.panel-',
  'desk-settings.import-',
  'desk-settings.line-',
  'desk-settings.font-',
  'desk-settings.scheme-',
];
const sourceOf = (folder: string): string =>
  readdirSync(folder, { recursive: true, encoding: 'utf8' })
    .filter((file) => /\.tsx?$/.test(file) && !/^words|test/.test(file))
    .map((file) => readFileSync(`${folder}/${file}`, 'utf8'))
    .join('\n');

const london = { language: 'en-GB', zone: 'Europe/London', reworded: {} } as const;
const berlin = { language: 'de-DE', zone: 'Europe/Berlin', reworded: {} } as const;

describe('the catalogue', () => {
  it('has each key once', () => {
    const parts = [...Object.values(PARTS), ...Object.values(DESK_PARTS), deskProblems].map(
      (part) => Object.keys(part).length,
    );
    expect(Object.keys(en)).toHaveLength(parts.reduce((sum, count) => sum + count, 0));
  });

  it('has keys of one form, and messages that can be read', () => {
    for (const [key, message] of Object.entries(en)) {
      expect(key).toMatch(/^[a-z-]+\.[a-z-]+$/);
      expect(() => namesIn(message, 'en-GB'), key).not.toThrow();
    }
  });

  it('has no sentence of the Desk that nothing says', () => {
    const source = sourceOf('src');
    const said = (key: string): boolean =>
      source.includes(`'${key}'`) || BY_STATE.some((start) => key.startsWith(start));
    expect(
      Object.values(DESK_PARTS).flatMap((part) => Object.keys(part).filter((key) => !said(key))),
    ).toEqual([]);
  });

  it('lacks nothing in German, and asks for the same values', () => {
    expect(Object.keys(de).sort()).toEqual(Object.keys(members).sort());
    for (const [key, message] of Object.entries(de)) {
      const original = (members as Record<string, string>)[key] ?? '';
      for (const name of namesIn(message, 'de-DE'))
        expect([...namesIn(original, 'en-GB')], key).toContain(name);
    }
  });

  it('is translated, not copied: what is the same in both are names and signs', () => {
    const same = Object.keys(members).filter(
      (key) => (de as Record<string, string>)[key] === (members as Record<string, string>)[key],
    );
    expect(same).toEqual(
      [
        'site.desk',
        'site.file-facts',
        'kind.link',
        'kind.links',
        'form.optional',
        'signin.code',
        'pending.bank',
        'checkout.title-held',
        'checkout.tax-in',
        'checkout.code',
        'subscription.switch-way',
        'details.name',
        'offer.each',
        'offer.instalments-short',
        'document.line',
        'document.bought-line',
        'passkey.title',
        'gateway.said',
      ].sort((a, b) => Object.keys(members).indexOf(a) - Object.keys(members).indexOf(b)),
    );
  });
});

it('a message is read by its usual branch', () => {
  expect(readable('{count, plural, one {# day} other {# days}} of {tier}', 'en-GB')).toBe(
    '{count} days of {tier}',
  );
  expect(readable('By card{fee, select, none {} other { with {fee}}}.', 'en-GB')).toBe('By card with {fee}.');
});

describe('words', () => {
  it('are in the language of the site, its money and its dates too', () => {
    const [english, german] = [wordsOf(london), wordsOf(berlin)];
    expect(english('checkout.pay-join', { amount: english.money(120_050, 'EUR') })).toBe(
      'Pay €1,200.50 and join',
    );
    expect(german('checkout.pay-join', { amount: german.money(120_050, 'EUR') })).toBe(
      '1.200,50\u00a0€ zahlen und beitreten',
    );
    expect(german.date('2027-01-31T23:30:00Z')).toBe('Mo., 1. Feb. 2027');
    expect(german.list(['Gazer', 'Observer', 'Founder'])).toBe('Gazer, Observer und Founder');
    expect(german('checkout.year', { count: 1, total: '6 €' })).toBe('Eine Zahlung, 6 € im ersten Jahr.');
    expect(german.problem({ code: 'declined.other' })).toMatch(/^Ihre Karte wurde abgelehnt/);
  });

  it('are the owner’s own where they reworded', () => {
    const t = wordsOf({
      ...berlin,
      reworded: { 'site.join': 'Mach mit', 'checkout.pay-join': '{amount}: los' },
    });
    expect([t('site.join'), t('checkout.pay-join', { amount: '6 €' })]).toEqual(['Mach mit', '6 €: los']);
    // What an owner wrote wrong is a sentence all the same.
    expect(wordsOf({ ...berlin, reworded: { 'site.join': 'Los {geht} es' } })('site.join')).toBe('Los … es');
    expect(messagesUnder({ ...london, reworded: { 'offer.free': 'gratis' } }, 'offer.f')['offer.free']).toBe(
      'gratis',
    );
  });

  it('of the Desk are English, its money as the site writes it', () => {
    const t = deskWordsOf(berlin);
    expect([t('site.join'), t.money(450, 'EUR'), t.date('2027-01-31T12:00:00Z')]).toEqual([
      'Join',
      '4,50\u00a0€',
      'Sun 31 Jan 2027',
    ]);
  });

  it('are told in every language there is', () => {
    for (const language of Object.keys(LANGUAGES) as (keyof typeof LANGUAGES)[])
      expect(wordsOf({ ...london, language })('kind.posts')).toMatch(/Posts|Beiträge/);
  });
});
