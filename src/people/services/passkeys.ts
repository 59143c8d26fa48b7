import {
  generateRegistrationOptions,
  verifyRegistrationResponse,
  type PublicKeyCredentialCreationOptionsJSON,
} from '@simplewebauthn/server';
import { z } from 'zod';
import { findMember } from '@/people/store/members';
import {
  deletePasskey,
  insertChallenge,
  insertPasskey,
  listPasskeys,
  takeChallenge,
} from '@/people/store/passkeys';
import { proveSession } from '@/people/store/sessions';
import { writeMail } from '@/mail/services/lib/write-mail';
import type { Instant } from '@/core/instants';
import { realNow, siteNow } from '@/platform/clock';
import { nothing, passwordAgain, uuid } from '@/platform/inputs';
import { record } from '@/platform/record';
import { done, missing, refusedField, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { pool, transactionUnlessRefused } from '@/platform/store/db';
import { hashToken } from '@/platform/tokens';
import { memberUse } from '@/platform/use';
import { say } from '@/words/problems';
import { confirmPassword } from './lib/confirm-password';
import { newPasskey } from './lib/passkey-answers';
import { againstAdding, againstRemoving } from './lib/proofs';
import { relyingParty } from './lib/relying-party';

/** For how many minutes a device may think about it. */
export const CHALLENGE_MINUTES = 5;
const MOST_PASSKEYS = 20;

type Shown = { id: string; name: string; at: Instant; usedAt: Instant | null };

/** One's own passkeys, the oldest first, in real time. */
export const myPasskeys = memberUse(
  'my-passkeys',
  nothing,
  async ({ memberId }): Promise<Result<Shown[]>> => {
    const passkeys = await listPasskeys(pool(), memberId);
    return done(passkeys.map(({ id, name, at, usedAt }) => ({ id, name, at, usedAt })));
  },
);

export type Asked<Options> = {
  options: Options;
  /** The only address at which browsers answer it. */
  origin: string;
};

/** Asks a device of the member's to make a passkey. Nothing counts until it has answered. */
export const beginPasskey = memberUse(
  'begin-passkey',
  z.object({ password: passwordAgain }),
  async (actor, { password }): Promise<Result<Asked<PublicKeyCredentialCreationOptionsJSON>>> => {
    const member = await findMember(pool(), actor.memberId);
    if (!member) return missing();
    const confirmed = await confirmPassword(member, password);
    if (!confirmed.ok) return confirmed;
    return transactionUnlessRefused(
      async (db): Promise<Result<Asked<PublicKeyCredentialCreationOptionsJSON>>> => {
        const against = await againstAdding(db, actor, member);
        if (against) return against;
        const known = await listPasskeys(db, member.id);
        if (known.length >= MOST_PASSKEYS)
          return refusedField('', 'passkey.too-many', { most: MOST_PASSKEYS });
        const { id: rpID, origin } = relyingParty();
        const options = await generateRegistrationOptions({
          rpID,
          rpName: (await currentSite(db)).name,
          userID: Buffer.from(member.id.replaceAll('-', ''), 'hex'),
          userName: member.email,
          userDisplayName: member.name || member.email,
          attestationType: 'none',
          excludeCredentials: known.map(({ credentialId }) => ({ id: credentialId })),
          authenticatorSelection: { residentKey: 'required', userVerification: 'required' },
        });
        await insertChallenge(db, hashToken(options.challenge), member.id, CHALLENGE_MINUTES);
        return done({ options, origin });
      },
    );
  },
);

const addSchema = z.object({
  name: z.string().trim().min(1, say('passkey.no-name')).max(80, say('passkey.long-name')),
  answer: newPasskey,
});

/** Keeps the passkey that a device has made, and tells its owner by mail. */
export const addPasskey = memberUse(
  'add-passkey',
  addSchema,
  async (actor, { name, answer }): Promise<Result<null>> => {
    const { id: expectedRPID, origin: expectedOrigin } = relyingParty();
    return transactionUnlessRefused(async (db): Promise<Result<null>> => {
      const member = await findMember(db, actor.memberId);
      if (!member) return missing();
      const against = await againstAdding(db, actor, member);
      if (against) return against;
      const checked = await verifyRegistrationResponse({
        response: answer,
        expectedChallenge: (challenge) => takeChallenge(db, hashToken(challenge), member.id),
        expectedOrigin,
        expectedRPID,
        requireUserVerification: true,
      }).catch(() => null);
      if (!checked?.verified) return refusedField('', 'passkey.wrong');
      const { id: credentialId, publicKey, counter } = checked.registrationInfo.credential;
      const isNew = await insertPasskey(db, {
        memberId: member.id,
        credentialId,
        publicKey: Buffer.from(publicKey),
        counter: BigInt(counter),
        transports: answer.response.transports,
        name,
      });
      if (!isNew) return refusedField('', 'passkey.known');
      await proveSession(db, hashToken(actor.browser?.session ?? ''));
      await record(db, actor, realNow(), 'passkey added', `member:${member.id}`, { name });
      const site = await currentSite(db);
      const content = { template: 'passkey-added', passkey: name } as const;
      const key = `passkey:${credentialId}`;
      await writeMail(db, site, { to: member, content, key, at: siteNow(site) });
      return done(null);
    });
  },
);

/** Removes one of the member's own passkeys. */
export const removePasskey = memberUse(
  'remove-passkey',
  z.object({ id: uuid, password: passwordAgain }),
  async (actor, { id, password }): Promise<Result<null>> => {
    const member = await findMember(pool(), actor.memberId);
    if (!member) return missing();
    const confirmed = await confirmPassword(member, password);
    if (!confirmed.ok) return confirmed;
    return transactionUnlessRefused(async (db): Promise<Result<null>> => {
      const against = await againstRemoving(db, member);
      if (against) return against;
      const name = await deletePasskey(db, id, member.id);
      if (name === undefined) return refusedField('', 'passkey.gone');
      await record(db, actor, realNow(), 'passkey removed', `member:${member.id}`, { name });
      return done(null);
    });
  },
);
