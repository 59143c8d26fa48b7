import { readFileSync } from 'node:fs';
import { z } from 'zod';
import { fromText } from '../../src/core/content/prose';
import { OPEN_TOPICS } from '../../src/core/mail-topics';
import { setMyMailTopic } from '../../src/mail/services/mail-topics';
import { confirmMailAddress } from '../../src/mail/store/mail-addresses';
import { letterPage, saveLetter } from '../../src/members/services/letters';
import { sendLetter } from '../../src/members/services/send-letter';
import { findMemberByEmail } from '../../src/people/store/members';
import type { Actor } from '../../src/platform/actor';
import { siteNow } from '../../src/platform/clock';
import { currentSite } from '../../src/platform/site';
import { pool } from '../../src/platform/store/db';
import { must } from './must';

const lettersSchema = z.object({
  wanting: z.array(z.string()),
  addresses: z.array(z.object({ email: z.string(), topics: z.array(z.enum(OPEN_TOPICS)) })),
  letters: z.array(z.object({ subject: z.string(), text: z.string(), isSent: z.boolean() })),
});

/** Some members want letters, two readers are known by their address alone, and the owner has written to them. */
export async function loadLetters(owner: Actor): Promise<void> {
  const { wanting, addresses, letters } = lettersSchema.parse(
    JSON.parse(readFileSync('demo/letters.json', 'utf8')),
  );
  for (const email of wanting) {
    const member = await findMemberByEmail(pool(), email);
    if (!member) throw new Error(`nobody has the address ${email}`);
    const actor: Actor = { kind: 'member', memberId: member.id, staffRole: null };
    must(await setMyMailTopic(actor, { topic: 'letters', isOff: false }), email);
  }
  const at = siteNow(await currentSite());
  for (const { email, topics } of addresses)
    await confirmMailAddress(pool(), { email, how: 'asked', topics, at });
  for (const { subject, text, isSent } of letters) {
    const input = { id: null, subject, body: fromText(text), filter: {}, toAddresses: true };
    const { id } = must(await saveLetter(owner, input), subject);
    if (!isSent) continue;
    const { version } = must(await letterPage(owner, id), subject).letter;
    must(await sendLetter(owner, { id, version }), subject);
  }
}
