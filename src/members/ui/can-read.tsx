'use client';

import { useRouter } from 'next/navigation';
import { ItemSearch } from '@/content/ui/item-search';
import type { MemberId } from '@/core/ids';
import { desk } from '@/words/desk';

/** Asks whether a member may read something: the answer is on the access map, with its reasons. */
export function CanRead({ memberId, name }: { memberId: MemberId; name: string }) {
  const router = useRouter();
  return (
    <section aria-label={desk('desk-members.can-read', { name })}>
      <h2 className="mb-2 text-xl">{desk('desk-members.can-read', { name })}</h2>
      <ItemSearch
        label={desk('desk-members.can-read-what')}
        hasFocus={false}
        onChoose={({ id }) =>
          router.push(`/desk/access?${new URLSearchParams({ why: id, as: `member:${memberId}` }).toString()}`)
        }
      />
    </section>
  );
}
