import { readFileSync } from 'node:fs';
import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import { moderateComments } from '../../src/access/services/moderate-comments';
import { saveKind } from '../../src/access/services/save-kind';
import { writeComment } from '../../src/access/services/write-comment';
import { NO_COMMENTS } from '../../src/core/content/comments';
import { listKinds } from '../../src/content/store/kinds';
import { findMemberByEmail } from '../../src/people/store/members';
import { SETUP, type Actor } from '../../src/platform/actor';
import { pool } from '../../src/platform/store/db';
import { must } from './must';

const commentsSchema = z.array(
  z.object({
    item: z.string(),
    by: z.string(),
    words: z.string(),
    /** The place in this list of the comment that is replied to. */
    replyTo: z.number().int().optional(),
    /** Waits for approval. */
    isHeld: z.boolean().default(false),
  }),
);

/** Posts have comments, held until they are approved. */
export async function turnOnComments(): Promise<void> {
  const post = (await listKinds(pool())).find(({ id }) => id === 'post');
  if (!post) throw new Error('there are no posts');
  const kind = { ...post, path: post.path ?? '', comments: { ...NO_COMMENTS, isOn: true } };
  must(await saveKind(SETUP, kind), 'comments on posts');
}

/** Posts have comments; members have written some, and one waits. */
export async function loadComments(): Promise<void> {
  await turnOnComments();
  const ids: string[] = [];
  for (const comment of commentsSchema.parse(JSON.parse(readFileSync('demo/comments.json', 'utf8')))) {
    const member = await findMemberByEmail(pool(), comment.by);
    if (!member) throw new Error(`nobody has the address ${comment.by}`);
    const { id: memberId, staffRole } = member;
    const actor: Actor = { kind: staffRole ? 'staff' : 'member', memberId, staffRole };
    const replyTo = comment.replyTo === undefined ? '' : (ids[comment.replyTo] ?? '');
    must(
      await writeComment(actor, {
        itemId: comment.item,
        words: comment.words,
        replyTo,
        formKey: randomUUID(),
      }),
      comment.words.slice(0, 40),
    );
    const { rows } = await pool().query<{ id: string }>(
      'SELECT id FROM comments WHERE member_id = $1 ORDER BY created_at DESC LIMIT 1',
      [memberId],
    );
    const id = rows[0]?.id ?? '';
    ids.push(id);
    if (!comment.isHeld) must(await moderateComments(SETUP, { ids: [id], state: 'shown' }), 'approved');
  }
}
