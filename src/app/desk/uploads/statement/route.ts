import { currentActor, refusal } from '@/app/session';
import { upload } from '@/app/uploads';
import { importStatement, mayImportStatement } from '@/billing/services/import-statement';
import { MOST_STATEMENT_BYTES } from '@/core/upload-bounds';

/** Takes a bank statement; `?try=yes` says what would be done, and does nothing. */
export async function POST(request: Request): Promise<Response> {
  const actor = await currentActor();
  const allowed = await mayImportStatement(actor);
  if (!allowed.ok) return refusal(allowed);
  const query = new URL(request.url).searchParams;
  return upload(request, MOST_STATEMENT_BYTES, (csv) =>
    importStatement(actor, {
      accountId: query.get('account') ?? '',
      csv,
      dryRun: query.get('try') === 'yes',
    }),
  );
}
