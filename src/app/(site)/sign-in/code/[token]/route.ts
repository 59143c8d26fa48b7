import { redirect } from 'next/navigation';
import { afterSignIn } from '@/app/after-sign-in';
import { currentActor, dropSecrets, setSecrets } from '@/app/session';
import { enterByLink } from '@/people/services/enter-code';

type Context = { params: Promise<{ token: string }> };

/** Where the link of a mailed code leads: it works in the browser that asked for it, and uses nothing up in any other. */
export async function GET(_: Request, { params }: Context): Promise<never> {
  const entered = await enterByLink(await currentActor(), (await params).token);
  if (!entered.ok) redirect('/sign-in/other-browser');
  await dropSecrets('code');
  if (entered.value.opened) {
    const { session, device, needsCode } = entered.value.opened;
    await setSecrets({ session, device });
    redirect(afterSignIn(needsCode, entered.value.to));
  }
  redirect(entered.value.to);
}
