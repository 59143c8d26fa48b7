import type { Metadata } from 'next';
import { cache } from 'react';
import Link from 'next/link';
import { searchOf, type Search } from '@/app/search';
import { currentActor, requireStaff, shown } from '@/app/session';
import { ruleEditor } from '@/access/services/access-map';
import { RuleForm, type RuleDraft } from '@/access/ui/rule-form';
import { deleteRuleAction, saveRuleAction } from '../actions';
import { desk } from '@/words/desk';

type Props = { params: Promise<{ id: string }>; searchParams: Search };

/** Read once a request: for the head and for the page. */
const editorOf = cache(async (id: string) => ruleEditor(await currentActor(), id));

export async function generateMetadata({ params }: Pick<Props, 'params'>): Promise<Metadata> {
  const found = await editorOf((await params).id);
  return {
    title: desk('desk-access.rule-title', {
      name: (found.ok && found.value.rule?.name) || desk('desk-access.new-rule'),
    }),
  };
}

export default async function RulePage({ params, searchParams }: Props) {
  await requireStaff('set access');
  const [{ id }, { item }] = [await params, await searchOf(searchParams)];
  const { rule, items, categories, tiers, siteDoorstep } = await shown(editorOf(id));
  const named = items.find((other) => other.id === item);
  const draft: RuleDraft = rule
    ? { ...rule, except: rule.except ?? [], alsoRequire: rule.alsoRequire ?? false }
    : {
        id: '',
        name: named?.title ?? '',
        on: true,
        covers: named ? [{ kind: 'item', id: named.id }] : [],
        except: [],
        openTo: [],
        alsoRequire: false,
        doorstep: null,
        version: 0,
      };
  return (
    <>
      <p>
        <Link href="/desk/access" className="text-spruce underline">
          {desk('desk.access')}
        </Link>
      </p>
      <h1 className="mt-1 text-3xl" id="desk-main">
        {rule ? rule.name : desk('desk-access.a-new-rule')}
      </h1>
      <RuleForm
        action={saveRuleAction}
        remove={rule ? deleteRuleAction : null}
        draft={draft}
        siteDoorstep={siteDoorstep}
        items={items.map(({ id: itemId, title, type }) => ({ id: itemId, title, type }))}
        categories={categories}
        tiers={tiers.map(({ id: tierId, name, keyCut }) => ({ id: tierId, name, keyCut }))}
      />
    </>
  );
}
