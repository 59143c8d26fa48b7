import type { Metadata } from 'next';
import { currentActor, requireStaff, shown } from '@/app/session';
import { joinQuestions } from '@/desk/services/tier-overview';
import { QuestionsEditor } from '@/tiers/ui/questions-editor';
import { TiersHead } from '@/tiers/ui/tiers-head';
import { saveQuestionsAction } from '../actions';
import { desk } from '@/words/desk';

export const metadata: Metadata = { title: desk('desk-tiers.join-questions-tiers') };

export default async function QuestionsPage() {
  await requireStaff('set tiers');
  const { fields, overview } = await shown(joinQuestions(await currentActor()));
  const { ladders, alone } = overview;
  const tiers = [...ladders.flatMap(({ tiers: rungs }) => rungs), ...alone].filter((tier) => !tier.retiredAt);
  return (
    <>
      <TiersHead here="questions" />
      <p className="mt-3 max-w-prose text-muted">{desk('desk-tiers.people-answer-these-questions-when')}</p>
      <QuestionsEditor
        action={saveQuestionsAction}
        fields={fields}
        tiers={tiers.map(({ id, name }) => ({ id, name }))}
      />
    </>
  );
}
