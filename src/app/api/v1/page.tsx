import type { Metadata } from 'next';
import { z } from 'zod';
import { currentSite } from '@/app/session';
import { OPERATIONS, PROBLEMS, type Operation } from '@/core/api/openapi';
import { config } from '@/platform/config';
import { desk } from '@/words/desk';

export const metadata: Metadata = { title: 'API', robots: { index: false } };

/** The description of the API for people, from the same source as the one for programs. */
export default async function ApiPage() {
  const { name } = await currentSite();
  const first = `curl -H "Authorization: Bearer $KEY" "${config().SITE_URL}/api/v1/decisions?path=/library&as=visitor"`;
  return (
    <main className="mx-auto max-w-4xl px-5 py-10">
      <h1 className="text-3xl">{desk('desk-api.title', { name })}</h1>
      <p className="mt-3 max-w-prose">{desk('desk-api.intro')}</p>
      <pre className="mt-4 overflow-x-auto rounded-md bg-sunken p-4 text-sm">{first}</pre>
      <p className="mt-4">
        {/* oxlint-disable-next-line nextjs/no-html-link-for-pages -- a document, not a page */}
        <a href="/api/v1/openapi.json" className="text-spruce underline">
          {desk('desk-api.openapi')}
        </a>
      </p>
      {OPERATIONS.map((operation) => (
        <OperationPart key={operation.id} operation={operation} />
      ))}
      <h2 className="mt-10 text-xl">{desk('desk-api.problems')}</h2>
      <p className="mt-2 max-w-prose">{desk('desk-api.problems-words')}</p>
      <dl className="mt-3 grid gap-x-5 gap-y-1 sm:grid-cols-[4rem_1fr]">
        {PROBLEMS.map(([status, words]) => (
          <div key={status} className="contents">
            <dt className="font-semibold">{status}</dt>
            <dd>
              <Marked words={words} />
            </dd>
          </div>
        ))}
      </dl>
    </main>
  );
}

function OperationPart({
  operation: { method, path, summary, scope, input, output },
}: {
  operation: Operation;
}) {
  return (
    <section className="mt-8 rounded-card border border-line bg-surface p-5">
      <h2 className="text-lg">{summary}</h2>
      <p className="mt-1">
        <code className="font-semibold">
          {method.toUpperCase()} {path}
        </code>
        <span className="block text-[0.9375rem] text-muted">{desk('desk-api.scope', { scope })}</span>
      </p>
      <Fields
        title={desk(method === 'post' || method === 'put' ? 'desk-api.body' : 'desk-api.parameters')}
        schema={input}
        io="input"
      />
      <Fields title={desk('desk-api.answer')} schema={output} io="output" />
    </section>
  );
}

type Described = {
  type?: string;
  anyOf?: { type?: string }[];
  enum?: string[];
  description?: string;
  default?: string | number;
};

function Fields({ title, schema, io }: { title: string; schema: z.ZodType; io: 'input' | 'output' }) {
  const { properties = {}, required = [] } = z.toJSONSchema(schema, { io, unrepresentable: 'any' }) as {
    properties?: Record<string, Described>;
    required?: string[];
  };
  return (
    <>
      <h3 className="mt-4 font-semibold">{title}</h3>
      <ul className="mt-1 grid gap-1">
        {Object.entries(properties).map(([name, about]) => (
          <li key={name} className="break-words">
            <code>{name}</code>{' '}
            <span className="text-muted">
              {[
                about.enum?.join(' | ') ?? about.type ?? about.anyOf?.map(({ type }) => type).join(' | '),
                io === 'input' && required.includes(name) && desk('desk-api.required'),
                about.default !== undefined && desk('desk-api.left-out', { value: about.default }),
              ]
                .filter(Boolean)
                .join(', ')}
            </span>{' '}
            <Marked words={about.description ?? ''} />
          </li>
        ))}
      </ul>
    </>
  );
}

/** Words with code between backticks. */
function Marked({ words }: { words: string }) {
  return words.split('`').map((part, n) => (n % 2 === 1 ? <code key={n}>{part}</code> : part));
}
