import type { Metadata } from 'next';
import { currentActor, requireStaff, shown } from '@/app/session';
import { codeChoices } from '@/desk/services/codes-place';
import { MoneyTabs } from '@/desk/ui/money-tabs';
import { CodeForm } from '@/tiers/ui/code-form';
import { desk } from '@/words/desk';
import { makeCodesAction } from '../actions';

export const metadata: Metadata = { title: desk('desk-codes.new') };

export default async function NewCodePage() {
  await requireStaff('set tiers');
  const choices = await shown(codeChoices(await currentActor()));
  return (
    <>
      <MoneyTabs here="codes" />
      <CodeForm action={makeCodesAction} code={null} amount="" {...choices} />
    </>
  );
}
