import type { Metadata } from 'next';
import { Link } from '@/kit/link';
import { currentActor, requireStaff, shown } from '@/app/session';
import { passesPlace } from '@/access/services/passes';
import { AccessTabs } from '@/access/ui/access-tabs';
import { passWays } from '@/access/ui/pass-words';
import { buttonClass } from '@/kit/button';
import { Empty } from '@/kit/empty';
import { desk, plainWords } from '@/words/desk';
import { lengthWords } from '@/words/offers';

export const metadata: Metadata = { title: desk('desk-access.passes') };

export default async function PassesPage() {
  const staff = await requireStaff();
  const passes = await shown(passesPlace(await currentActor()));
  const mayChange = staff.may('set access');
  return (
    <>
      <div className="flex flex-wrap items-center gap-x-8 gap-y-2" id="desk-main">
        <h1 className="text-3xl">{desk('desk-access.passes')}</h1>
        <AccessTabs here="passes" />
        {mayChange && (
          <Link data-new href="/desk/access/passes/new" className={buttonClass('main', 'ml-auto')}>
            {desk('desk-access.make-a-pass')}
          </Link>
        )}
      </div>
      <p className="mt-3 max-w-prose text-muted">{desk('desk-access.passes-intro')}</p>
      {passes.length === 0 ? (
        <div className="mt-5 max-w-3xl">
          <Empty title={desk('desk-access.no-pass-yet')}>{desk('desk-access.no-pass-hint')}</Empty>
        </div>
      ) : (
        <ul className="mt-5 grid max-w-4xl gap-3">
          {passes.map((pass) => (
            <li
              key={pass.id}
              className="flex flex-wrap justify-between gap-x-8 gap-y-1 rounded-card border border-line bg-surface p-4"
            >
              <div>
                <h2 className="text-lg break-words">
                  {mayChange ? (
                    <Link href={`/desk/access/passes/${pass.id}`} className="hover:underline">
                      {pass.name}
                    </Link>
                  ) : (
                    pass.name
                  )}
                </h2>
                <p className="mt-1">
                  {[
                    passWays(pass),
                    pass.lasts &&
                      desk('desk-access.pass-lasts-words', { length: lengthWords(pass.lasts, plainWords) }),
                  ]
                    .filter(Boolean)
                    .join(', ')}
                  .
                </p>
                <p className="mt-1 text-muted">
                  {pass.rules.length === 0
                    ? desk('desk-access.pass-opens-nothing')
                    : desk('desk-access.pass-opens', {
                        rules: pass.rules.map(({ name }) => `“${name}”`).join(', '),
                      })}
                  .
                </p>
              </div>
              <p className="figures text-muted">
                {desk('desk-access.pass-holders', { count: pass.holders })}
              </p>
            </li>
          ))}
        </ul>
      )}
    </>
  );
}
