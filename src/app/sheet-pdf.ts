import 'server-only';
import { refusal } from '@/app/session';
import type { Result } from '@/platform/result';

/** A document as a PDF, for those who may read it. */
export async function pdf(sheet: Result<{ label: string; bytes: Buffer }>): Promise<Response> {
  if (!sheet.ok) return refusal(sheet);
  const { label, bytes } = sheet.value;
  return new Response(new Uint8Array(bytes), {
    headers: {
      'content-type': 'application/pdf',
      'content-disposition': `attachment; filename="${label.replace(/[^A-Za-z0-9-]/g, '-')}.pdf"`,
      'cache-control': 'private, no-store',
    },
  });
}
