import type { MemberId } from '@/core/ids';
import { readSigned, sign } from '@/platform/tokens';

const PURPOSE = 'letter';

const token = (letterId: string, memberId: MemberId): string =>
  Buffer.from(sign(`${PURPOSE}:${letterId}:${memberId}`)).toString('base64url');

/** Where the picture is that a mail program asks for when the letter is opened. */
export const letterSeenPath = (letterId: string, memberId: MemberId): string =>
  `/api/letters/seen/${token(letterId, memberId)}`;

/** Where the link in a letter leads, from where its reader is sent on. */
export const letterReadPath = (letterId: string, memberId: MemberId): string =>
  `/api/letters/read/${token(letterId, memberId)}`;

/** Null where it was not made here. It grants nothing: it only says whose letter was opened. */
export function readLetterToken(given: string): { letterId: string; memberId: string } | null {
  const [purpose, letterId, memberId] =
    readSigned(Buffer.from(given, 'base64url').toString('utf8'))?.split(':') ?? [];
  return purpose === PURPOSE && letterId && memberId ? { letterId, memberId } : null;
}
