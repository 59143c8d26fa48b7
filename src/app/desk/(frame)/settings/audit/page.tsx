import type { Metadata } from 'next';
import { Link } from '@/kit/link';
import { searchOf, type Search } from '@/app/search';
import { currentActor, deskWords, requireStaff, shown } from '@/app/session';
import { ACTOR_KINDS, readAudit } from '@/desk/services/read-audit';
import { Button } from '@/kit/button';
import { Empty } from '@/kit/empty';
import { inputClass } from '@/kit/input-class';
import { Table } from '@/kit/table';
import { desk } from '@/words/desk';

export const metadata: Metadata = { title: desk('desk-settings.audit') };

/** Where a subject of the audit is looked at. */
function pathOf(subject: string): string | null {
  const colon = subject.indexOf(':');
  const [kind, id] = [subject.slice(0, colon), subject.slice(colon + 1)];
  switch (kind) {
    case 'member':
      return `/desk/members/${id}`;
    case 'subscription':
      return `/desk/money?open=${id}`;
    case 'item':
      return `/desk/content/items/${id}`;
    case 'tier':
      return `/desk/tiers/${id}`;
    default:
      return null;
  }
}

export default async function AuditPage({ searchParams }: { searchParams: Search }) {
  const t = await deskWords();
  await requireStaff('set up the site');
  const asked = await searchOf(searchParams);
  const { lines, older, staff } = await shown(readAudit(await currentActor(), asked));
  const { before: _, ...filter } = asked;
  const query = (more: Record<string, string | undefined>): string =>
    new URLSearchParams(
      Object.entries({ ...filter, ...more }).flatMap(([name, value]) => (value ? [[name, value]] : [])),
    ).toString();
  return (
    <>
      <p className="mt-4 max-w-prose text-muted">{desk('desk-settings.audit-intro')}</p>
      <form className="mt-4 flex flex-wrap items-end gap-3" role="search">
        <label className="grid gap-1">
          <span className="text-[0.9375rem] font-semibold">{desk('desk-settings.audit-done')}</span>
          <input name="q" defaultValue={asked.q} data-filter className={`${inputClass} max-w-56`} />
        </label>
        <label className="grid gap-1">
          <span className="text-[0.9375rem] font-semibold">{desk('desk-settings.audit-who')}</span>
          <select name="who" defaultValue={asked.who ?? ''} className={`${inputClass} max-w-56`}>
            <option value="">{desk('desk-settings.audit-anyone')}</option>
            {ACTOR_KINDS.map((kind) => (
              <option key={kind} value={kind}>
                {desk(`desk-settings.audit-kind-${kind}`)}
              </option>
            ))}
            <optgroup label={desk('desk-settings.audit-by')}>
              {staff.map(({ id, name }) => (
                <option key={id} value={id}>
                  {name}
                </option>
              ))}
            </optgroup>
          </select>
        </label>
        {(['from', 'to'] as const).map((name) => (
          <label key={name} className="grid gap-1">
            <span className="text-[0.9375rem] font-semibold">{desk(`desk-settings.audit-${name}`)}</span>
            <input type="date" name={name} defaultValue={asked[name]} className={inputClass} />
          </label>
        ))}
        <Button type="submit" look="quiet">
          {desk('desk-settings.audit-search')}
        </Button>
        <a
          href={`/desk/settings/audit/export?${query({})}`}
          download
          className="ml-auto self-center text-spruce underline"
        >
          {desk('desk-members.export-csv')}
        </a>
      </form>
      {lines.length === 0 ? (
        <div className="mt-5">
          <Empty title={desk('desk-settings.audit-none')}>{desk('desk-settings.audit-none-hint')}</Empty>
        </div>
      ) : (
        <Table
          heads={[
            desk('desk-settings.audit-when'),
            desk('desk-settings.audit-who'),
            desk('desk-settings.audit-what'),
            desk('desk-settings.audit-about'),
            desk('desk-settings.audit-details'),
          ]}
        >
          {lines.map((line) => {
            const path = pathOf(line.subject);
            return (
              <tr key={line.id} className="border-t border-line align-top">
                <td className="py-2 pr-5 whitespace-nowrap">{t.dateTime(line.at)}</td>
                <td className="py-2 pr-5">{line.actor ?? desk(`desk-settings.audit-kind-${line.kind}`)}</td>
                <td className="py-2 pr-5 font-semibold">{line.action}</td>
                <td className="py-2 pr-5 [overflow-wrap:anywhere]">
                  {path ? (
                    <Link href={path} className="text-spruce hover:underline">
                      {line.about}
                    </Link>
                  ) : (
                    line.about
                  )}
                </td>
                <td className="max-w-96 py-2 text-[0.9375rem] [overflow-wrap:anywhere] text-muted">
                  <span className="line-clamp-6">{line.facts.join(' · ')}</span>
                </td>
              </tr>
            );
          })}
        </Table>
      )}
      {older && (
        <p className="mt-4">
          <Link href={`/desk/settings/audit?${query({ before: older })}`} className="text-spruce underline">
            {desk('desk-settings.audit-older')}
          </Link>
        </p>
      )}
    </>
  );
}
