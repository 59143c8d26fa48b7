import { currentMember, currentWords, STATUS } from '@/app/session';

/** Who is signed in: `{ name, email }`. For forms on pages that are the same for many. */
export async function GET(): Promise<Response> {
  const member = await currentMember();
  if (member) return Response.json({ name: member.name, email: member.email });
  return new Response((await currentWords())('signin.session-ended'), { status: STATUS['sign-in'] });
}
