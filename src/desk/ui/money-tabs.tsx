import { Tabs } from '@/kit/tabs';
import { desk } from '@/words/desk';

const TABS = [
  { id: 'subscriptions', name: desk('desk-money.subscriptions'), path: '/desk/money' },
  { id: 'payments', name: desk('desk.payments'), path: '/desk/money/payments' },
  { id: 'due', name: desk('desk.upcoming-charges'), path: '/desk/money/due' },
  { id: 'failed', name: desk('desk.failed-payments'), path: '/desk/money/failed' },
  { id: 'transfers', name: desk('desk-money.transfers'), path: '/desk/money/transfers' },
  { id: 'products', name: desk('desk-products.for-sale'), path: '/desk/money/products' },
  { id: 'codes', name: desk('desk-codes.codes'), path: '/desk/money/codes' },
  { id: 'books', name: desk('desk-money.books'), path: '/desk/money/books' },
  { id: 'gateways', name: desk('desk-money.gateways'), path: '/desk/money/gateways' },
  { id: 'messages', name: desk('desk-money.messages'), path: '/desk/money/messages' },
];

export function MoneyTabs({ here }: { here: string }) {
  return (
    <div className="flex flex-wrap items-center gap-x-8 gap-y-2" id="desk-main">
      <h1 className="text-3xl">{desk('desk.money')}</h1>
      <Tabs label={desk('desk.money')} here={here} tabs={TABS} />
    </div>
  );
}
