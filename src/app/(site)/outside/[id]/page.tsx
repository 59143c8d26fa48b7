import type { Metadata } from 'next';
import { redirect } from 'next/navigation';
import { cache } from 'react';
import { outsideDoor } from '@/access/services/gate';
import { Doorstep } from '@/access/ui/doorstep';
import { doorstepTiers } from '@/app/doorstep-tiers';
import { enterSharedPasswordAction, leaveAddressAction } from '@/app/pass-actions';
import { searchOf, type Search } from '@/app/search';
import { currentActor, currentMember, shown, siteWords } from '@/app/session';
import { signInAction } from '@/app/sign-in-action';

type Props = { params: Promise<{ id: string }>; searchParams: Search };

const doorFor = cache(async (id: string, to: string, served: string) =>
  outsideDoor(await currentActor(), { id, to, served }),
);
const found = async ({ params, searchParams }: Props) => {
  const { to = '', served = '' } = await searchOf(searchParams);
  return doorFor((await params).id, to, served);
};

export async function generateMetadata(props: Props): Promise<Metadata> {
  const door = await found(props);
  return {
    title: door.ok && door.value.kind === 'doorstep' ? door.value.name : undefined,
    robots: { index: false },
  };
}

/** Where people are led who want into a place outside that nginx guards: on, or to its doorstep. */
export default async function OutsidePage(props: Props) {
  const door = await shown(found(props));
  if (door.kind === 'leads-on') redirect(door.to);
  const [t, member] = [await siteWords(), await currentMember()];
  return (
    <>
      <div className="mx-auto w-full max-w-2xl px-5 pt-9 pb-8 sm:pt-12">
        <h1 className="text-4xl leading-[1.1] break-words sm:text-5xl">{door.name}</h1>
      </div>
      <Doorstep
        t={t}
        signIn={signInAction}
        item={{ type: 'page', title: door.name, path: door.path, summary: '' }}
        state={door.state}
        opensOn={door.opensAt ? t.date(door.opensAt) : null}
        minutesLeft={0}
        asker={door.asker}
        notice={door.notice}
        firstName={member?.name.trim().split(/\s+/)[0] ?? ''}
        button={door.button}
        showSignIn={door.showSignIn}
        joinPath="/join"
        signInPath={`/sign-in?to=${encodeURIComponent(door.path)}`}
        usedUp={null}
        passes={door.passes}
        getPass={{ byPassword: enterSharedPasswordAction, byAddress: leaveAddressAction }}
        tiers={await doorstepTiers(t, door)}
      />
    </>
  );
}
