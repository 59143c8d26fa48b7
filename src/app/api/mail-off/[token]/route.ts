import { redirect } from 'next/navigation';
import { currentActor, STATUS } from '@/app/session';
import { turnMailOff } from '@/mail/services/mail-topics';

type Context = { params: Promise<{ token: string }> };

/** One click in a mail program: it posts here without cookies or a page, and what it posts says nothing more (RFC 8058). */
export async function POST(_: Request, { params }: Context): Promise<Response> {
  const { token } = await params;
  const done = await turnMailOff(await currentActor(), { token, isOff: true });
  return new Response(null, { status: done.ok ? 200 : STATUS[done.code ?? 'invalid'] });
}

/** Opened by a person, it asks. */
export async function GET(_: Request, { params }: Context): Promise<Response> {
  redirect(`/mail-off/${encodeURIComponent((await params).token)}`);
}
