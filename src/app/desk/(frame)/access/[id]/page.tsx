import type { Metadata } from 'next';
import { cache } from 'react';
import { Link } from '@/kit/link';
import { searchOf, type Search } from '@/app/search';
import { currentActor, deskWords, requireStaff, shown } from '@/app/session';
import { beginOpener } from '@/app/begin-action';
import { findSomeMembers } from '@/app/find-members-action';
import { ruleEditor, type StoredRule } from '@/access/services/access-map';
import { ruleHistory } from '@/access/services/rule-history';
import { noticeSample } from '@/app/notice-sample';
import { RuleHistory } from '@/access/ui/rule-history';
import { Said } from '@/kit/toasts';
import { RuleForm, type RuleDraft } from '@/access/ui/rule-form';
import { deleteRuleAction, previewRuleAction, restoreRuleAction, saveRuleAction } from '../actions';
import { desk } from '@/words/desk';

type Props = { params: Promise<{ id: string }>; searchParams: Search };

/** Read once a request: for the head and for the page. */
const editorOf = cache(async (id: string, item: string, copy: string) =>
  ruleEditor(await currentActor(), { id, item, copy }),
);

/** What a copy of a rule has of it. */
const draftOf = ({
  covers,
  except = [],
  openTo,
  alsoRequire = false,
  doorstep,
  meter = null,
  listed = true,
  each = null,
  firstAtOnce = false,
}: StoredRule) => ({
  covers,
  except,
  openTo,
  alsoRequire,
  doorstep,
  meter,
  listed,
  each,
  firstAtOnce,
});

const BEGINNINGS = [
  ['tier', 'set tiers'],
  ['group', 'manage members'],
  ['pass', 'set access'],
] as const;

const opensTo =
  (kind: 'tier' | 'pass') =>
  ({ id }: { id: string }) => ({ who: { kind, id } });

export async function generateMetadata({ params, searchParams }: Props): Promise<Metadata> {
  const { item = '', copy = '' } = await searchOf(searchParams);
  const found = await editorOf((await params).id, item, copy);
  return {
    title: desk('desk-access.rule-title', {
      name: (found.ok && found.value.rule?.name) || desk('desk-access.new-rule'),
    }),
  };
}

export default async function RulePage({ params, searchParams }: Props) {
  const staff = await requireStaff('set access');
  const [{ id }, { item = '', copy = '', tier = '', pass = '', saved }] = [
    await params,
    await searchOf(searchParams),
  ];
  const [t, actor] = [await deskWords(), await currentActor()];
  const found = await shown(editorOf(id, item, copy));
  const { rule, named, copied, categories, tags, kinds, tiers, groups, names, siteDoorstep, meters } = found;
  const draft: RuleDraft = rule
    ? { id: rule.id, version: rule.version, name: rule.name, on: rule.on, ...draftOf(rule) }
    : {
        id: '',
        name: copied ? desk('desk-access.copy-of', { name: copied.name }) : '',
        on: true,
        covers: named ? [{ kind: 'item', id: named.id }] : [],
        except: [],
        openTo: [
          ...tiers.filter(({ id: one }) => one === tier).map(opensTo('tier')),
          ...found.passes.filter(({ id: one }) => one === pass).map(opensTo('pass')),
        ],
        alsoRequire: false,
        doorstep: null,
        meter: null,
        listed: true,
        each: null,
        firstAtOnce: true,
        ...(copied && draftOf(copied)),
        version: 0,
      };
  return (
    <>
      {saved && <Said words={desk('desk-access.rule-restored')} />}
      <p>
        <Link href="/desk/access" className="text-spruce underline">
          {desk('desk.access')}
        </Link>
      </p>
      <div className="mt-1 flex flex-wrap items-center gap-x-6 gap-y-2">
        <h1 className="text-3xl break-words" id="desk-main">
          {rule ? rule.name : desk('desk-access.a-new-rule')}
        </h1>
        {rule && (
          <Link href={`/desk/access/new?copy=${rule.id}`} className="text-spruce underline">
            {desk('desk-access.copy-rule')}
          </Link>
        )}
      </div>
      <RuleForm
        key={`${id} ${item} ${copy} ${tier} ${pass} ${rule?.version}`}
        action={saveRuleAction}
        remove={rule ? deleteRuleAction : null}
        draft={draft}
        siteDoorstep={siteDoorstep}
        sample={await noticeSample()}
        meters={meters}
        choices={{ categories, tags, kinds }}
        tiers={tiers.map(({ id: tierId, name, keyCut }) => ({ id: tierId, name, keyCut }))}
        groups={groups}
        passes={found.passes}
        names={names}
        findMembers={findSomeMembers}
        preview={previewRuleAction}
        begin={beginOpener}
        mayBegin={BEGINNINGS.filter(([, right]) => staff.may(right)).map(([kind]) => kind)}
      />
      {rule && (
        <RuleHistory
          id={rule.id}
          {...await shown(ruleHistory(actor, rule.id))}
          t={t}
          restore={restoreRuleAction}
        />
      )}
    </>
  );
}
