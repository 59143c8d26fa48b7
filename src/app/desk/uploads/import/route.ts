import { currentActor, currentWords } from '@/app/session';
import { uploadJson } from '@/app/uploads';
import { importStep } from '@/desk/services/import-site';
import { done } from '@/platform/result';

/** One step of an import: `{ uploadId, from, isDry }` in; what became of some files, and where to go on, out. */
export async function POST(request: Request): Promise<Response> {
  const actor = await currentActor();
  const t = await currentWords();
  return uploadJson(request, async (input) => {
    const step = await importStep(actor, input);
    if (!step.ok) return step;
    const { lines, ...rest } = step.value;
    return done({
      ...rest,
      lines: lines.map(({ path, is, code, name = '' }) => ({
        path,
        is,
        words: code ? t.problem({ code, values: { name } }) : '',
      })),
    });
  });
}
