import { redirect } from 'next/navigation';
import { currentActor, shown } from '@/app/session';
import { letterRead } from '@/members/services/letter-opens';

type Context = { params: Promise<{ token: string }> };

/** The link in a letter: it leads on to what was mailed. */
export async function GET(_: Request, { params }: Context): Promise<Response> {
  redirect((await shown(letterRead(await currentActor(), (await params).token))).path);
}
