import type { Instant } from '@/core/instants';
import type { SiteDefault } from '@/core/access/decide';
import type { PictureId } from '@/core/ids';
import type { Theme } from '@/core/theme';
import { themeSchema } from '@/core/theme-schema';
import type { Doorstep } from '@/core/access/doorstep';
import { doorstepSchema } from '@/core/access/doorstep-schema';
import type { OpenWeek } from '@/core/access/open-week';
import { openWeekSchema } from '@/core/access/open-week-schema';
import type { TaxTable, TaxWay } from '@/core/tax';
import type { RoleSettings } from '@/core/staff';
import type { Joining } from '@/core/tiers/joining';
import type { AccountSection } from '@/core/account-sections';
import { accountSectionsSchema } from '@/core/account-sections-schema';
import type { MailSetting } from '@/core/mail-words';
import type { Language } from '@/words/languages';
import type { Reworded } from '@/words/words';
import { built, maybeOne, run, type Db, prepared } from './db';

export type Mode = 'test' | 'live';

export type Site = {
  name: string;
  zone: string;
  currency: string;
  /** What members read. */
  language: Language;
  /** Sentences of that language in the owner's own words. */
  reworded: Reworded;
  mode: Mode;
  accessDefault: SiteDefault;
  /** Milliseconds by which the rehearsal clock runs ahead of real time. */
  clockAheadMs: number;
  retryDays: number[];
  graceDays: number;
  doorstep: Doorstep;
  /** When everyone reads as holders of a tier; null for none. */
  openWeek: OpenWeek | null;
  /** The origins whose pages may show items in frames. */
  frameOrigins: string[];
  theme: Theme;
  /** The picture beside the site's name; null: its key. */
  markId: PictureId | null;
  /** The rhythm with which the join page opens, as "1-month"; '' for the shortest. */
  joinRhythm: string;
  /** How people can join at all; a tier can be stricter. */
  joining: Joining;
  /** The free offer of those who register without choosing one; null: an account without a tier. */
  registerOfferId: string | null;
  senderName: string;
  senderAddress: string;
  /** Whether members may delete their own account. */
  mayDeleteAccount: boolean;
  tax: TaxTable;
  /** ISO 3166-1 alpha-2, or '' where none was chosen. */
  homeCountry: string;
  /** The seller, as named on invoices. */
  seller: string;
  taxNumber: string;
  documentPrefix: string;
  /** What the owner changed of mails, by template. */
  mails: Record<string, MailSetting | undefined>;
  accountSections: AccountSection[];
  wentLiveAt: Instant | null;
  /** Test data is to be cleared, and is not yet; when it was, real time. */
  clearsTestData: boolean;
  testClearedAt: Instant | null;
  /** After so many minutes without a page, a session of staff ends. */
  staffIdleMinutes: number;
  /** Whether staff are staff only after a one-time code or by a passkey. */
  asksStaffProof: boolean;
  /** Minor units; larger refunds ask for the password again. */
  refundAsksAbove: number;
  /** How many letters to many are written a minute; all together. */
  lettersPerMinute: number;
  /** Whether people who join are asked if they want letters. */
  asksLetters: boolean;
  /** Whether it is noted who opens a letter to many, and who reads on from it. */
  countsOpens: boolean;
  /** What the owner lets the staff roles do; a role that is not in it is as it is from the start. */
  roles: RoleSettings;
};

const FIND_SITE = prepared(
  'find-site',
  `SELECT name, zone, currency, language, mode, access_default, clock_ahead_ms, retry_days, grace_days, doorstep, open_week, frame_origins, theme, mark_id, join_rhythm, joining, register_offer_id, sender_name, sender_address,
       may_delete_account, tax_way, home_country, seller, tax_number, document_prefix, account_sections, went_live_at, clears_test_data, test_cleared_at, staff_idle_minutes, asks_staff_proof, refund_asks_above, letters_per_minute, asks_letters, counts_opens,
       (SELECT jsonb_agg(jsonb_build_object('id', id, 'name', name) ORDER BY position, id) FROM tax_kinds) AS kinds,
       (SELECT jsonb_agg(jsonb_build_object('kindId', kind_id, 'country', country, 'name', name, 'rate', rate) ORDER BY kind_id, country) FROM tax_rates) AS rates,
       (SELECT jsonb_object_agg(template, jsonb_build_object('isOn', is_on, 'subject', subject, 'words', words)) FROM mail_settings) AS mails,
       (SELECT jsonb_object_agg(key, words) FROM reworded WHERE reworded.language = site.language) AS reworded,
       (SELECT jsonb_object_agg(role, jsonb_build_object('rights', rights, 'readsAll', reads_all, 'writesIn', writes_in, 'shutFrom', shut_from)) FROM staff_roles) AS roles
     FROM site`,
);

/** The site, or undefined before it was set up. */
export async function findSite(db: Db): Promise<Site | undefined> {
  const row = await maybeOne<
    Omit<Site, 'clockAheadMs' | 'refundAsksAbove' | 'tax' | 'mails' | 'reworded' | 'roles'> & {
      clockAheadMs: bigint;
      refundAsksAbove: bigint;
      taxWay: TaxWay;
      kinds: TaxTable['kinds'] | null;
      rates: TaxTable['rates'] | null;
      mails: Site['mails'] | null;
      reworded: Reworded | null;
      roles: RoleSettings | null;
    }
  >(db, FIND_SITE, [], {
    doorstep: doorstepSchema,
    openWeek: openWeekSchema,
    theme: themeSchema,
    accountSections: accountSectionsSchema,
    kinds: built,
    rates: built,
    mails: built,
    reworded: built,
    roles: built,
  });
  if (!row) return undefined;
  const { taxWay: way, kinds, rates, mails, reworded, roles, ...site } = row;
  return {
    ...site,
    clockAheadMs: Number(site.clockAheadMs),
    refundAsksAbove: Number(site.refundAsksAbove),
    tax: { way, kinds: kinds ?? [], rates: rates ?? [] },
    mails: mails ?? {},
    reworded: reworded ?? {},
    roles: roles ?? {},
  };
}

export type NewSite = Pick<
  Site,
  | 'name'
  | 'zone'
  | 'currency'
  | 'language'
  | 'mode'
  | 'accessDefault'
  | 'clockAheadMs'
  | 'retryDays'
  | 'graceDays'
  | 'doorstep'
  | 'senderName'
  | 'senderAddress'
>;

export async function insertSite(db: Db, site: NewSite): Promise<void> {
  await run(
    db,
    `INSERT INTO site (name, zone, currency, language, mode, access_default, clock_ahead_ms, retry_days, grace_days, doorstep, sender_name, sender_address)
     VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12)`,
    [
      site.name,
      site.zone,
      site.currency,
      site.language,
      site.mode,
      site.accessDefault,
      site.clockAheadMs,
      site.retryDays,
      site.graceDays,
      site.doorstep,
      site.senderName,
      site.senderAddress,
    ],
  );
}

/** From when the rehearsal clock was last moved, by itself; null before that. */
export async function findClockMove(db: Db): Promise<Instant | null> {
  const row = await maybeOne<{ clockMovedFrom: Instant | null }>(db, 'SELECT clock_moved_from FROM site');
  return row?.clockMovedFrom ?? null;
}

/** Moves the rehearsal clock forward by milliseconds from an instant of its own. Only in test mode; never back. */
export async function addToClock(db: Db, ms: number, from: Instant): Promise<boolean> {
  return (
    (await run(
      db,
      `UPDATE site SET clock_ahead_ms = clock_ahead_ms + $1::bigint, clock_moved_from = $2 WHERE mode = 'test' AND $1::bigint > 0`,
      [ms, from],
    )) === 1
  );
}

export async function setLetterSettings(
  db: Db,
  {
    lettersPerMinute,
    asksLetters,
    countsOpens,
  }: Pick<Site, 'lettersPerMinute' | 'asksLetters' | 'countsOpens'>,
): Promise<void> {
  await run(db, 'UPDATE site SET letters_per_minute = $1, asks_letters = $2, counts_opens = $3', [
    lettersPerMinute,
    asksLetters,
    countsOpens,
  ]);
}

export async function setSender(db: Db, name: string, address: string): Promise<void> {
  await run(db, 'UPDATE site SET sender_name = $1, sender_address = $2', [name, address]);
}

/** Days after a first failure at which a charge is tried again, and for which access is kept. */
export async function setDunning(db: Db, retryDays: number[], graceDays: number): Promise<void> {
  await run(db, 'UPDATE site SET retry_days = $1, grace_days = $2', [retryDays, graceDays]);
}

/** When sessions of staff end by themselves, in minutes, and above what refund, in minor units, a password is asked for. */
export async function setStaffSettings(db: Db, idleMinutes: number, refundAsksAbove: number): Promise<void> {
  await run(db, 'UPDATE site SET staff_idle_minutes = $1, refund_asks_above = $2', [
    idleMinutes,
    refundAsksAbove,
  ]);
}

/** Whether staff are staff only in sessions that showed a one-time code or a passkey. */
export async function setAsksStaffProof(db: Db, asks: boolean): Promise<void> {
  await run(db, 'UPDATE site SET asks_staff_proof = $1', [asks]);
}

export async function setAccountSettings(
  db: Db,
  sections: AccountSection[],
  mayDelete: boolean,
): Promise<void> {
  await run(db, 'UPDATE site SET account_sections = $1, may_delete_account = $2', [
    JSON.stringify(sections),
    mayDelete,
  ]);
}

/** From now on money is real. Real time. */
export async function setLive(db: Db, at: Instant): Promise<void> {
  await run(db, `UPDATE site SET mode = 'live', went_live_at = $1 WHERE mode = 'test'`, [at]);
}

/** That test data is to be cleared, or, with false, that it has been. */
export async function setClearsTestData(db: Db, clears: boolean): Promise<void> {
  await run(
    db,
    'UPDATE site SET clears_test_data = $1, test_cleared_at = CASE WHEN $1 THEN test_cleared_at ELSE now() END',
    [clears],
  );
}

/** How the owner words a mail, and whether it is sent. */
export async function saveMailSetting(db: Db, template: string, s: MailSetting): Promise<void> {
  await run(
    db,
    `INSERT INTO mail_settings (template, is_on, subject, words) VALUES ($1, $2, $3, $4)
     ON CONFLICT (template) DO UPDATE SET is_on = $2, subject = $3, words = $4`,
    [template, s.isOn, s.subject, s.words],
  );
}

/** What the site is called, and how it writes: language, zone (IANA) and the currency of new offers (ISO 4217); how the join page opens. */
export async function setGeneral(
  db: Db,
  {
    name,
    language,
    zone,
    currency,
    joinRhythm,
    joining,
    registerOfferId,
  }: Pick<Site, 'name' | 'language' | 'zone' | 'currency' | 'joinRhythm' | 'joining' | 'registerOfferId'>,
): Promise<void> {
  await run(
    db,
    'UPDATE site SET name = $1, language = $2, zone = $3, currency = $4, join_rhythm = $5, joining = $6, register_offer_id = $7',
    [name, language, zone, currency, joinRhythm, joining, registerOfferId],
  );
}

/** A sentence of a language in the owner's words; '' goes back to the original. */
export async function saveReworded(db: Db, language: Language, key: string, words: string): Promise<void> {
  if (words === '') await run(db, 'DELETE FROM reworded WHERE language = $1 AND key = $2', [language, key]);
  else
    await run(
      db,
      `INSERT INTO reworded (language, key, words) VALUES ($1, $2, $3) ON CONFLICT (language, key) DO UPDATE SET words = $3`,
      [language, key, words],
    );
}

/** What someone sees who is not let in, where no rule says otherwise. */
export async function setDoorstep(db: Db, doorstep: Doorstep): Promise<void> {
  await run(db, 'UPDATE site SET doorstep = $1', [doorstep]);
}

/** Whom what no rule covers is open to. */
export async function setAccessDefault(db: Db, accessDefault: SiteDefault): Promise<void> {
  await run(db, 'UPDATE site SET access_default = $1', [accessDefault]);
}

/** When everyone reads as holders of a tier; null for never. */
export async function setOpenWeek(db: Db, week: OpenWeek | null): Promise<void> {
  await run(db, 'UPDATE site SET open_week = $1', [week]);
}

/** How the site looks. */
export async function setTheme(db: Db, theme: Theme, markId: PictureId | null): Promise<void> {
  await run(db, 'UPDATE site SET theme = $1, mark_id = $2', [theme, markId]);
}

export async function setFrameOrigins(db: Db, origins: string[]): Promise<void> {
  await run(db, 'UPDATE site SET frame_origins = $1', [origins]);
}
