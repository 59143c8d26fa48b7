import 'server-only';
import { SiteLink, SiteLinkButton } from '@/kit/site-link';
import type { KeyCut } from '@/core/key-cut';
import { compare } from '@/core/instants';
import { currentActor, shown, siteWords } from '@/app/session';
import { membersRoom } from '@/access/services/members-room';
import { myAccount } from '@/members/services/my-account';
import { categoryNames } from '@/app/item-pages';
import { lineAbove } from '@/content/ui/item-list';
import { Picture } from '@/content/ui/picture';
import { KeyGlyph } from '@/kit/key-cut';
import type { ItemPreview } from '@/access/services/view-item';
import type { Words } from '@/words/words';

/** What a member can read, what comes next, and what they hold; nothing for those who are not signed in. */
export async function MembersRoom() {
  const actor = await currentActor();
  if (actor.memberId === null) return null;
  const [t, names] = [await siteWords(), await categoryNames()];
  const [room, mine] = [await shown(membersRoom(actor)), await shown(myAccount(actor))];
  const ways = [...mine.ways.values()].flatMap(({ switches }) => switches);
  const wayTo = (name: string) => ways.find(({ tierName }) => tierName === name) ?? null;
  const held = mine.account.holdings.filter(({ isNow, tier }) => isNow && tier);
  return (
    <div className="members-room grid items-start gap-x-10 gap-y-8 lg:grid-cols-[minmax(0,1fr)_21rem]">
      <div className="grid gap-9">
        <p className="text-xl">{t('room.hello', { name: mine.name.split(' ')[0] ?? mine.name })}</p>
        {room.begun.length > 0 && (
          <section>
            <h2 className="border-b border-line pb-2 text-2xl">{t('room.begun')}</h2>
            <ul className="divide-y divide-line">
              {room.begun.map((item) => (
                <Row
                  key={item.id}
                  t={t}
                  item={item}
                  line={t('room.minutes-left', { minutes: item.minutesLeft })}
                >
                  <span
                    role="img"
                    aria-label={t('room.read-so-far', { share: Math.round(item.place / 10) })}
                    className="h-1.5 w-28 flex-none overflow-hidden rounded-full bg-sunken"
                  >
                    <span className="block h-full bg-spruce" style={{ width: `${item.place / 10}%` }} />
                  </span>
                </Row>
              ))}
            </ul>
          </section>
        )}
        <section>
          <h2 className="border-b border-line pb-2 text-2xl">{t('room.newest')}</h2>
          {room.newest.length === 0 && <p className="mt-3 text-muted">{t('room.nothing-open')}</p>}
          <ul className="divide-y divide-line">
            {room.newest.map((item) => (
              <Row key={item.id} t={t} item={item} line={lineAbove(item, t, names)} />
            ))}
          </ul>
        </section>
        {room.categories.length > 0 && (
          <section>
            <h2 className="text-2xl">{t('room.browse')}</h2>
            <ul className="mt-3 flex flex-wrap gap-2">
              {room.categories.map(({ id, name, count }) => (
                <li key={id}>
                  <SiteLink
                    href={`/categories/${id}`}
                    className="figures block rounded-full border border-line px-3.5 py-1 no-underline hover:border-ink"
                  >
                    {name} <span className="text-muted">{count}</span>
                  </SiteLink>
                </li>
              ))}
            </ul>
          </section>
        )}
      </div>
      <aside className="grid gap-5">
        <section className="rounded-card border border-line bg-surface p-5 text-base">
          {held.length === 0 && <p className="text-muted">{t('room.no-tier')}</p>}
          <ul className="grid gap-4">
            {held.map((holding) => {
              const running = mine.account.subscriptions.find(({ tier }) => tier?.id === holding.tier?.id);
              return (
                holding.tier && (
                  <li key={holding.id} className="flex items-start gap-3">
                    <KeyGlyph cut={holding.tier.keyCut} size={22} className="mt-1" />
                    <span>
                      <span className="block font-display text-lg font-semibold">{holding.tier.name}</span>
                      <span className="figures text-muted">
                        {[
                          t('room.since', { date: t.date(holding.fromAt) }),
                          running?.next &&
                            t('room.renews', {
                              date: t.date(running.next.at),
                              amount: t.money(running.next.amount, running.next.currency, true),
                            }),
                        ]
                          .filter(Boolean)
                          .join(' · ')}
                      </span>
                    </span>
                  </li>
                )
              );
            })}
          </ul>
          {room.next.length > 0 && (
            <>
              <h3 className="mt-5 mb-1 text-lg">{t('room.opening')}</h3>
              <ul className="figures divide-y divide-dashed divide-line border-t border-dashed border-line">
                {room.next
                  .sort((a, b) => compare(a.opensAt, b.opensAt))
                  .map(({ id, title, path, opensAt }) => (
                    <li key={id} className="grid grid-cols-[5.5rem_1fr] gap-x-3 py-2">
                      <span className="font-semibold text-later">{t.dayMonth(opensAt)}</span>
                      <SiteLink href={path} className="no-underline hover:underline">
                        {title}
                      </SiteLink>
                    </li>
                  ))}
              </ul>
              <p className="mt-3 text-muted">
                <a href="/account/opening" download="opening.ics" className="underline">
                  {t('room.to-calendar')}
                </a>
              </p>
            </>
          )}
          <p className="mt-4">
            <SiteLink href="/account" className="text-spruce underline">
              {t('site.account')}
            </SiteLink>
          </p>
        </section>
        {room.up && <NextRung t={t} up={room.up} way={wayTo(room.up.name)} />}
      </aside>
    </div>
  );
}

type Up = { name: string; keyCut: KeyCut; more: number };

/** What the next rung would open, and what it costs; where they can go over to it. */
function NextRung({ t, up, way }: { t: Words; up: Up; way: { offerId: string; price: string } | null }) {
  if (!way) return null;
  return (
    <section className="rounded-card bg-night p-5 text-base text-on-night">
      <h3 className="flex items-center gap-3 text-lg">
        <KeyGlyph cut={up.keyCut} size={20} onNight />
        {t('room.next-rung', { tier: up.name })}
      </h3>
      <p className="figures mt-2 text-on-night-soft">
        {t('room.next-rung-words', { count: up.more, price: way.price })}
      </p>
      <SiteLinkButton href={`/join/${way.offerId}?to=/account`} look="night" className="mt-3 no-underline">
        {t('room.next-rung-see')}
      </SiteLinkButton>
    </section>
  );
}

function Row({
  t,
  item,
  line,
  children,
}: {
  t: Words;
  item: ItemPreview;
  line: string;
  children?: React.ReactNode;
}) {
  return (
    <li className="flex items-center gap-4 py-3.5">
      {item.picture && (
        <Picture
          picture={item.picture}
          sizes="7rem"
          className="aspect-[5/3] w-24 flex-none rounded-lg object-cover sm:w-28"
        />
      )}
      <div className="min-w-0 flex-1">
        <h3 className="text-lg leading-snug">
          <SiteLink href={item.path} className="text-ink no-underline hover:underline">
            {item.title}
          </SiteLink>
        </h3>
        <p className="text-[0.9375rem] text-muted" lang={t.locale}>
          {line}
        </p>
      </div>
      {children}
    </li>
  );
}
