import { Tabs } from '@/kit/tabs';

const TABS = [
  { id: 'subscriptions', name: 'Subscriptions', path: '/desk/money' },
  { id: 'payments', name: 'Payments', path: '/desk/money/payments' },
  { id: 'due', name: 'Upcoming charges', path: '/desk/money/due' },
  { id: 'failed', name: 'Failed payments', path: '/desk/money/failed' },
  { id: 'transfers', name: 'Transfers', path: '/desk/money/transfers' },
  { id: 'books', name: 'Books', path: '/desk/money/books' },
  { id: 'gateways', name: 'Gateways', path: '/desk/money/gateways' },
  { id: 'messages', name: 'Messages', path: '/desk/money/messages' },
];

export function MoneyTabs({ here }: { here: string }) {
  return (
    <div className="flex flex-wrap items-center gap-x-8 gap-y-2" id="desk-main">
      <h1 className="text-3xl">Money</h1>
      <Tabs label="Money" here={here} tabs={TABS} />
    </div>
  );
}
