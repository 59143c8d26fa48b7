import type { Metadata } from 'next';
import { currentActor, requireStaff, shown } from '@/app/session';
import { joinQuestions } from '@/desk/services/tier-overview';
import { QuestionsEditor } from '@/tiers/ui/questions-editor';
import { TiersHead } from '@/tiers/ui/tiers-head';
import { saveQuestionsAction } from '../actions';

export const metadata: Metadata = { title: 'Join questions · Tiers' };

export default async function QuestionsPage() {
  await requireStaff('set tiers');
  const { fields, overview } = await shown(joinQuestions(await currentActor()));
  const { ladders, alone } = overview;
  const tiers = [...ladders.flatMap(({ tiers: rungs }) => rungs), ...alone].filter((tier) => !tier.retiredAt);
  return (
    <>
      <TiersHead here="questions" />
      <p className="mt-3 max-w-prose text-muted">
        People answer these questions when they join, in this order, after confirming their email address. You
        see the answers on the member’s page. Keep it short: every question costs you a few new members.
      </p>
      <QuestionsEditor
        action={saveQuestionsAction}
        fields={fields}
        tiers={tiers.map(({ id, name }) => ({ id, name }))}
      />
    </>
  );
}
