import type { Metadata } from 'next';
import { Link } from '@/kit/link';
import { BUILT_IN_KINDS } from '@/core/content/item';
import { currentActor, requireStaff, shown } from '@/app/session';
import { contentTerms } from '@/access/services/content-place';
import { ContentHead } from '@/content/ui/content-head';
import { KindForm } from '@/content/ui/kind-form';
import { ActionForm, FormMessage, SubmitButton } from '@/kit/action-form';
import { removeKindAction, saveKindAction } from '../actions';
import { desk } from '@/words/desk';

export const metadata: Metadata = { title: desk('desk-content.kinds-title') };

export default async function KindsPage() {
  const staff = await requireStaff();
  const maySet = staff.may('set access');
  const { kinds, tiers } = await shown(contentTerms(await currentActor()));
  return (
    <>
      <ContentHead here="kinds" />
      <p className="mt-4 max-w-prose text-muted">{desk('desk-content.kinds-hint')}</p>
      <ul className="mt-4 max-w-3xl divide-y divide-line border-y border-line">
        {kinds.map((kind) => {
          const isOwn = !BUILT_IN_KINDS.includes(kind.id);
          return (
            <li key={kind.id} className="py-3">
              <details>
                <summary className="flex flex-wrap items-baseline gap-x-3">
                  <span className="font-semibold">{kind.many}</span>
                  <span className="text-[0.9375rem] text-muted">
                    {[
                      kind.path ?? desk('desk-content.tree-of-pages'),
                      desk('desk-content.term-items', { count: kind.items }),
                    ].join(' · ')}
                  </span>
                </summary>
                {maySet && (
                  <div className="mt-3 grid gap-4">
                    <KindForm
                      key={`${kind.name}:${kind.plural}:${kind.path}`}
                      kind={kind}
                      isFixed={kind.id === 'page' || kind.id === 'file'}
                      tiers={tiers}
                      save={saveKindAction}
                    />
                    <p>
                      <Link href={`/desk/access/new?kind=${kind.id}`} className="text-spruce underline">
                        {desk('desk-content.rule-for-kind', { kinds: kind.many })}
                      </Link>
                    </p>
                    {isOwn && (
                      <ActionForm action={removeKindAction} label={desk('desk-content.delete-kind')}>
                        <input type="hidden" name="id" value={kind.id} />
                        <SubmitButton look="bad" busy={desk('desk.saving')}>
                          {desk('desk-content.delete-kind')}
                        </SubmitButton>
                        <FormMessage />
                      </ActionForm>
                    )}
                  </div>
                )}
              </details>
            </li>
          );
        })}
      </ul>
      {maySet && (
        <section className="mt-6 max-w-3xl rounded-card border border-line bg-surface p-5">
          <h2 className="mb-3 text-xl">{desk('desk-content.new-kind')}</h2>
          <KindForm key={kinds.length} kind={null} isFixed={false} tiers={tiers} save={saveKindAction} />
        </section>
      )}
    </>
  );
}
