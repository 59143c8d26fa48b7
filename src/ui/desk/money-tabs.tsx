import clsx from 'clsx';
import Link from 'next/link';

const TABS = [
  { id: 'subscriptions', name: 'Subscriptions', path: '/desk/money' },
  { id: 'payments', name: 'Payments', path: '/desk/money/payments' },
  { id: 'gateways', name: 'Gateways', path: '/desk/money/gateways' },
] as const;

export function MoneyTabs({ here }: { here: (typeof TABS)[number]['id'] }) {
  return (
    <div className="flex flex-wrap items-center gap-x-8 gap-y-2" id="desk-main">
      <h1 className="text-3xl">Money</h1>
      <nav aria-label="Money">
        <ul className="flex gap-1 rounded-lg bg-sunken p-1">
          {TABS.map((tab) => (
            <li key={tab.id}>
              <Link href={tab.path} aria-current={tab.id === here ? 'page' : undefined} className={clsx('block rounded-md px-3.5 py-1.5 font-semibold', tab.id === here ? 'bg-surface shadow-sm' : 'text-muted hover:text-ink')}>
                {tab.name}
              </Link>
            </li>
          ))}
        </ul>
      </nav>
    </div>
  );
}
