import { maybeOne, run, type Db } from '@/platform/store/db';
import type { MemberId } from '@/core/ids';

export type CodePurpose = 'sign-in' | 'join' | 'new-address';
/** A code that was mailed, for the browser that asked for it. */
export type EmailCode = {
  id: string;
  purpose: CodePurpose;
  email: string;
  /** Whose address it is to become, where it is a new one. */
  memberId: MemberId | null;
  returnTo: string;
  codeHash: Buffer;
  linkHash: Buffer;
  tries: number;
};

const COLUMNS = 'id, purpose, email, member_id, return_to, code_hash, link_hash, tries';

/** Keeps a code for a browser, instead of any that it asked for before; good for minutes of real time. */
export async function saveEmailCode(
  db: Db,
  browserHash: Buffer,
  code: Omit<EmailCode, 'tries'>,
  minutes: number,
): Promise<void> {
  await run(
    db,
    `INSERT INTO email_codes (browser_hash, id, purpose, email, member_id, return_to, code_hash, link_hash, expires_at)
     VALUES ($1, $2, $3, $4, $5, $6, $7, $8, now() + make_interval(mins => $9))
     ON CONFLICT (browser_hash) DO UPDATE SET id = $2, purpose = $3, email = $4, member_id = $5, return_to = $6, code_hash = $7,
       link_hash = $8, tries = 0, expires_at = now() + make_interval(mins => $9)`,
    [
      browserHash,
      code.id,
      code.purpose,
      code.email,
      code.memberId,
      code.returnTo,
      code.codeHash,
      code.linkHash,
      minutes,
    ],
  );
}

/** What a browser has asked for, while it is good. */
export async function findEmailCode(db: Db, browserHash: Buffer): Promise<EmailCode | undefined> {
  return maybeOne(db, `SELECT ${COLUMNS} FROM email_codes WHERE browser_hash = $1 AND expires_at > now()`, [
    browserHash,
  ]);
}

/** Counts a try at the code of a browser. Undefined: there is none, it is too old, or `most` tries were made. */
export async function countCodeTry(
  db: Db,
  browserHash: Buffer,
  most: number,
): Promise<EmailCode | undefined> {
  return maybeOne(
    db,
    `UPDATE email_codes SET tries = tries + 1 WHERE browser_hash = $1 AND expires_at > now() AND tries < $2 RETURNING ${COLUMNS}`,
    [browserHash, most],
  );
}

/** Uses a code up. False: it was used already. */
export async function deleteEmailCode(db: Db, id: string): Promise<boolean> {
  return (await run(db, 'DELETE FROM email_codes WHERE id = $1', [id])) === 1;
}

export async function deleteOldCodes(db: Db): Promise<number> {
  return run(db, 'DELETE FROM email_codes WHERE expires_at <= now()');
}
