import { z } from 'zod';
import { slug } from '@/platform/inputs';
import { publicUse } from '@/platform/use';
import { withReads } from './lib/free-reads';
import { openTo } from './lib/open-file';
import { readerOf } from './lib/reader';

export type { OpenFile } from './lib/open-file';

const askSchema = z.object({ id: slug, range: z.string().max(200).nullable() });

/** The bytes of a file, for those whom the rules let in at the moment of asking. */
export const openFile = publicUse('open-file', askSchema, async (actor, input) =>
  openTo(await withReads(await readerOf(actor), actor), input),
);
