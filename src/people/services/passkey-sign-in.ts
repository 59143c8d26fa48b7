import {
  generateAuthenticationOptions,
  verifyAuthenticationResponse,
  type PublicKeyCredentialRequestOptionsJSON,
} from '@simplewebauthn/server';
import { z } from 'zod';
import { findMember } from '@/people/store/members';
import { insertChallenge, lockPasskey, notePasskeyUse, takeChallenge } from '@/people/store/passkeys';
import type { Actor } from '@/platform/actor';
import { realNow } from '@/platform/clock';
import { nothing } from '@/platform/inputs';
import { record } from '@/platform/record';
import { done, refusedField, type Refusal, type Result } from '@/platform/result';
import { safeReturn } from '@/platform/safe-return';
import { pool, transaction } from '@/platform/store/db';
import { spendPoint, type Limit } from '@/platform/store/rate-limits';
import { hashToken } from '@/platform/tokens';
import { publicUse } from '@/platform/use';
import { openSession, type Opened } from './lib/open-session';
import { shownPasskey } from './lib/passkey-answers';
import { relyingParty } from './lib/relying-party';
import { waitMinutes } from './lib/wait-minutes';
import { CHALLENGE_MINUTES, type Asked } from './passkeys';

/** Nobody can guess a signature; what is limited is the work that they make. */
const PER_CALLER: Limit = { name: 'passkey:caller', points: 120, seconds: 15 * 60 };

async function againstAsking({ address }: Actor): Promise<Refusal | null> {
  const wait = await spendPoint(PER_CALLER, address ?? 'unknown');
  return wait > 0 ? refusedField('', 'sign-in.too-many', { minutes: waitMinutes(wait) }) : null;
}

/** Begins a sign-in by passkey. No account is named: the device knows which passkeys it has for the site. */
export const askForPasskey = publicUse(
  'ask-for-passkey',
  nothing,
  async (actor): Promise<Result<Asked<PublicKeyCredentialRequestOptionsJSON>>> => {
    const against = await againstAsking(actor);
    if (against) return against;
    const { id: rpID, origin } = relyingParty();
    const options = await generateAuthenticationOptions({ rpID, userVerification: 'required' });
    await insertChallenge(pool(), hashToken(options.challenge), null, CHALLENGE_MINUTES);
    return done({ options, origin });
  },
);

/**
 * Signs in by what a device has signed. It has looked at who holds it, by a finger or a number, so no one-time code is
 * asked for. The same answer for a passkey that is unknown and a signature that is wrong.
 */
export const signInByPasskey = publicUse(
  'sign-in-by-passkey',
  z.object({ answer: shownPasskey, to: z.string().max(500).default('/account') }),
  async (actor, { answer, to }): Promise<Result<Opened & { to: string }>> => {
    const against = await againstAsking(actor);
    if (against) return against;
    const { id: expectedRPID, origin: expectedOrigin } = relyingParty();
    return transaction(async (db): Promise<Result<Opened & { to: string }>> => {
      const passkey = await lockPasskey(db, answer.id);
      const member = passkey && (await findMember(db, passkey.memberId));
      if (!passkey || !member || member.deletedAt) return refusedField('', 'passkey.unknown');
      const checked = await verifyAuthenticationResponse({
        response: { ...answer, response: { ...answer.response, userHandle: undefined } },
        expectedChallenge: (challenge) => takeChallenge(db, hashToken(challenge), null),
        expectedOrigin,
        expectedRPID,
        credential: {
          id: passkey.credentialId,
          publicKey: new Uint8Array(passkey.publicKey),
          counter: Number(passkey.counter),
        },
        requireUserVerification: true,
      }).catch(() => null);
      if (!checked?.verified) {
        const detail = { how: 'passkey', from: actor.address ?? '' };
        await record(db, actor, realNow(), 'sign-in failed', `member:${member.id}`, detail);
        return refusedField('', 'passkey.unknown');
      }
      if (member.blockedAt) return refusedField('', 'sign-in.blocked');
      await notePasskeyUse(db, passkey.id, checked.authenticationInfo.newCounter);
      return done({ ...(await openSession(db, actor, member, 'passkey', true)), to: safeReturn(to) });
    });
  },
);
