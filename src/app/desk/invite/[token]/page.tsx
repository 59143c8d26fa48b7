import type { Metadata } from 'next';
import { currentActor, currentSite, deskWords, shown } from '@/app/session';
import { LinkButton } from '@/kit/button';
import { inviteAsked } from '@/people/services/staff';
import { UseLink } from '@/people/ui/sign-in-form';
import { desk } from '@/words/desk';
import { acceptInviteAction } from '../actions';

export const metadata: Metadata = { title: desk('desk-settings.invitation'), robots: { index: false } };

/** Where an invitation to the staff leads. Looking at it uses nothing up: programs that read mail open links too. */
export default async function InvitePage({ params }: { params: Promise<{ token: string }> }) {
  const { token } = await params;
  const t = await deskWords();
  const site = await currentSite();
  const invite = await shown(inviteAsked(await currentActor(), token.slice(0, 100)));
  return (
    <main className="grid min-h-dvh place-items-center bg-night px-5 text-on-night">
      <div className="w-full max-w-sm rounded-xl bg-paper p-8 text-ink">
        <h1 className="text-3xl">{site.name}</h1>
        {invite ? (
          <>
            <p className="mt-2">
              {desk('desk-settings.invited-as', { email: invite.email, role: invite.role })}
            </p>
            <p className="mt-2 text-muted">{desk(`desk-settings.role-hint-${invite.role}`)}</p>
            <UseLink t={t} action={acceptInviteAction} token={token} />
          </>
        ) : (
          <>
            <p className="mt-2">{desk('desk-settings.invitation-over')}</p>
            <LinkButton href="/desk/sign-in" look="quiet" className="mt-5">
              {desk('desk-settings.to-the-desk')}
            </LinkButton>
          </>
        )}
      </div>
    </main>
  );
}
