import type { Metadata } from 'next';
import { currentMember } from '@/app/session';
import { prepareJoining } from '@/services/prepare-joining';
import { joiningToResume } from '@/services/unfinished-joinings';
import { LinkButton } from '@/ui/kit/button';
import { Empty } from '@/ui/kit/empty';
import { Checkout } from '../../checkout';

export const metadata: Metadata = { title: 'Join', robots: { index: false }, referrer: 'no-referrer' };

/** Where the mailed link of an unfinished joining leads: the same joining, with what was typed. */
export default async function ResumePage({ params }: { params: Promise<{ token: string }> }) {
  const { token } = await params;
  const joining = await joiningToResume(token);
  const signedIn = await currentMember();
  // Somebody else's session must not pay for it.
  const member = joining && signedIn?.id === joining.memberId ? signedIn : undefined;
  const prepared = joining && (await prepareJoining(joining.offerId, member, joining.id));
  if (!joining || !prepared)
    return (
      <div className="mx-auto w-full max-w-3xl px-5 py-16">
        <Empty
          title="This link leads nowhere any more"
          action={<LinkButton href="/join">See how to join</LinkButton>}
        >
          The joining was finished, or was left for too long. Nothing was charged by it since.
        </Empty>
      </div>
    );
  return (
    <Checkout
      prepared={prepared}
      member={member}
      returnTo={joining.returnTo}
      typed={{
        name: joining.name,
        email: joining.email,
        answers: Object.fromEntries(joining.answers.map(({ fieldId, value }) => [fieldId, value])),
      }}
    />
  );
}
