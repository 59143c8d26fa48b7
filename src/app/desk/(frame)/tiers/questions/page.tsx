import type { Metadata } from 'next';
import { currentActor, requireStaff, shown } from '@/app/session';
import { joinQuestions } from '@/services/tier-overview';
import { QuestionsEditor } from '@/ui/desk/questions-editor';
import { TiersHead } from '@/ui/desk/tiers-head';
import { saveQuestionsAction } from '../actions';

export const metadata: Metadata = { title: 'Asked at joining' };

export default async function QuestionsPage() {
  await requireStaff('set tiers');
  const { fields, overview } = await shown(joinQuestions(await currentActor()));
  const { ladders, alone } = overview;
  const tiers = [...ladders.flatMap(({ tiers: rungs }) => rungs), ...alone].filter((tier) => !tier.retiredAt);
  return (
    <>
      <TiersHead here="questions" />
      <p className="mt-3 max-w-prose text-muted">
        What somebody is asked when they join, in this order, besides e-mail and password. The answers stand
        on the member’s file. Ask for little: every question costs a few who would have joined.
      </p>
      <QuestionsEditor
        action={saveQuestionsAction}
        fields={fields}
        tiers={tiers.map(({ id, name }) => ({ id, name }))}
      />
    </>
  );
}
