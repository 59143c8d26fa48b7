import type { Metadata } from 'next';
import { Link } from '@/kit/link';
import { currentActor, deskWords, requireStaff, shown } from '@/app/session';
import { SCOPES, type Scope } from '@/core/api/scopes';
import { ActionForm, FormMessage, ProblemOf, SubmitButton } from '@/kit/action-form';
import { ConfirmAction } from '@/kit/confirm-action';
import { Empty } from '@/kit/empty';
import { TextField } from '@/kit/field';
import { Sentence } from '@/kit/sentence';
import { Table } from '@/kit/table';
import { apiKeys, type ApiKey } from '@/people/services/api-keys';
import { desk } from '@/words/desk';
import { makeKeyAction, revokeKeyAction } from './actions';

export const metadata: Metadata = { title: desk('desk-settings.api-settings') };

const SCOPE_WORDS: Record<Scope, string> = {
  'decisions:read': desk('desk-settings.scope-decisions-read'),
  'content:read': desk('desk-settings.scope-content-read'),
  'members:read': desk('desk-settings.scope-members-read'),
  'members:write': desk('desk-settings.scope-members-write'),
};
const scopeWords = (scope: Scope): string => SCOPE_WORDS[scope];

export default async function ApiSettingsPage() {
  await requireStaff('set up the site');
  const { keys, mode } = await shown(apiKeys(await currentActor()));
  return (
    <>
      <p className="mt-4 max-w-prose text-muted">
        <Sentence
          words={desk('desk-settings.api-intro')}
          parts={{
            link: (words) => (
              <Link href="/api/v1" className="text-spruce underline">
                {words}
              </Link>
            ),
          }}
        />
      </p>
      <div className="mt-5 grid grid-cols-1 items-start gap-8 lg:grid-cols-[24rem_minmax(0,1fr)]">
        <ActionForm
          action={makeKeyAction}
          emptyWhenDone
          label={desk('desk-settings.new-key')}
          className="grid gap-4 rounded-card border border-line bg-surface p-5 [overflow-wrap:anywhere]"
        >
          <h2 className="text-xl">{desk('desk-settings.new-key')}</h2>
          <TextField name="name" label={desk('desk.name')} hint={desk('desk-settings.key-name-hint')} />
          <fieldset>
            <legend className="mb-1 font-semibold">{desk('desk-settings.key-scopes')}</legend>
            <ProblemOf name="scopes" />
            {SCOPES.map((scope) => (
              <label key={scope} className="mt-1 flex items-start gap-2.5">
                <input type="checkbox" name="scopes" value={scope} className="mt-1 size-4.5 flex-none" />
                <span>
                  {scopeWords(scope)} <code className="block text-sm text-muted">{scope}</code>
                </span>
              </label>
            ))}
          </fieldset>
          <TextField
            name="days"
            label={desk('desk-settings.key-days')}
            defaultValue="90"
            inputMode="numeric"
            className="w-40"
          />
          <p className="text-[0.9375rem] text-muted">{desk('desk-settings.key-mode', { mode })}</p>
          <SubmitButton busy={desk('desk.saving')} className="w-fit px-8">
            {desk('desk-settings.make-key')}
          </SubmitButton>
          <FormMessage />
        </ActionForm>
        {keys.length === 0 ? (
          <Empty title={desk('desk-settings.no-key-yet')}>{desk('desk-settings.no-key-hint')}</Empty>
        ) : (
          <Keys keys={keys} />
        )}
      </div>
    </>
  );
}

async function Keys({ keys }: { keys: ApiKey[] }) {
  const t = await deskWords();
  const endWords = (key: ApiKey): string =>
    key.revokedAt
      ? desk('desk-settings.key-revoked', { date: t.date(key.revokedAt) })
      : key.hasEnded
        ? desk('desk-settings.key-has-ended', { date: t.date(key.endsAt) })
        : t.date(key.endsAt);
  return (
    <Table
      heads={[
        desk('desk-settings.key'),
        desk('desk-settings.key-may'),
        desk('desk-settings.key-mode-head'),
        desk('desk-settings.key-used'),
        desk('desk-settings.key-ends'),
        '',
      ]}
    >
      {keys.map((key) => (
        <tr key={key.id} className="border-t border-line align-baseline">
          <th scope="row" className="py-2 pr-5 text-left font-semibold break-words">
            {key.name}
            <span className="block text-sm font-normal text-muted">
              <code>{key.begins}…</code>{' '}
              {desk('desk-settings.key-made-by', { name: key.madeBy, date: t.date(key.createdAt) })}
            </span>
          </th>
          <td className="py-2 pr-5">{key.scopes.map(scopeWords).join('; ')}</td>
          <td className="py-2 pr-5">
            {desk(key.mode === 'live' ? 'desk-settings.mode-live' : 'desk-settings.mode-test')}
          </td>
          <td className="py-2 pr-5 text-muted">
            {key.lastUsedAt ? t.dateTime(key.lastUsedAt) : desk('desk-settings.key-never-used')}
          </td>
          <td className="py-2 pr-5 text-muted">{endWords(key)}</td>
          <td className="py-1 text-right">
            {!key.hasEnded && (
              <ConfirmAction
                action={revokeKeyAction}
                fields={{ id: key.id }}
                summary={desk('desk-settings.revoke-key')}
                question={desk('desk-settings.revoke-key-really', { name: key.name })}
                yes={desk('desk-settings.yes-revoke')}
                busy={desk('desk.saving')}
              />
            )}
          </td>
        </tr>
      ))}
    </Table>
  );
}
