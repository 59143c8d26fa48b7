import { z } from 'zod';
import {
  decisionInput,
  decisionOutput,
  decisionsInput,
  decisionsOutput,
  itemInput,
  itemsInput,
  itemsOutput,
  itemWithTextOutput,
  problemOutput,
} from './schemas';
import type { Scope } from './scopes';

export type Operation = {
  id: string;
  method: 'get' | 'post';
  path: string;
  summary: string;
  scope: Scope;
  input: z.ZodObject;
  output: z.ZodType;
};

export const OPERATIONS: Operation[] = [
  {
    id: 'decide',
    method: 'get',
    path: '/api/v1/decisions',
    summary: 'Whether someone may read an item',
    scope: 'decisions:read',
    input: decisionInput,
    output: decisionOutput,
  },
  {
    id: 'decideMany',
    method: 'post',
    path: '/api/v1/decisions',
    summary: 'The same for up to 500 items',
    scope: 'decisions:read',
    input: decisionsInput,
    output: decisionsOutput,
  },
  {
    id: 'listItems',
    method: 'get',
    path: '/api/v1/items',
    summary: 'What is published, as someone may know of it, the newest first',
    scope: 'content:read',
    input: itemsInput,
    output: itemsOutput,
  },
  {
    id: 'readItem',
    method: 'get',
    path: '/api/v1/items/{id}',
    summary: 'An item with what someone may read of it',
    scope: 'content:read',
    input: itemInput,
    output: itemWithTextOutput,
  },
];

export const PROBLEMS: [status: number, words: string][] = [
  [400, 'Something in the request cannot be used; `errors` says what.'],
  [401, 'There is no key, or it is unknown, has ended or was revoked.'],
  [403, 'The key lacks the scope, or the one who made it lacks the right.'],
  [404, 'There is no such item or viewpoint.'],
  [429, 'Too many requests; `Retry-After` says how many seconds to wait.'],
];

const jsonOf = (schema: z.ZodType, io: 'input' | 'output'): Record<string, unknown> => {
  const { $schema: _, ...json } = z.toJSONSchema(schema, { io, unrepresentable: 'any' });
  return json;
};

/** The description of the API as OpenAPI 3.1. `server`: the address of the site. */
export function openApi({ name, server }: { name: string; server: string }): Record<string, unknown> {
  const paths: Record<string, Record<string, unknown>> = {};
  for (const operation of OPERATIONS) (paths[operation.path] ??= {})[operation.method] = described(operation);
  return {
    openapi: '3.1.0',
    info: { title: `${name}: API`, version: '1' },
    servers: [{ url: server }],
    security: [{ key: [] }],
    paths,
    components: {
      securitySchemes: { key: { type: 'http', scheme: 'bearer' } },
      schemas: { Problem: jsonOf(problemOutput, 'output') },
    },
  };
}

function described({ id, method, path, summary, scope, input, output }: Operation): Record<string, unknown> {
  const { properties = {}, required = [] } = jsonOf(input, 'input') as {
    properties?: Record<string, { description?: string }>;
    required?: string[];
  };
  const parameters = Object.entries(properties).map(([name, schema]) => ({
    name,
    in: path.includes(`{${name}}`) ? 'path' : 'query',
    required: required.includes(name),
    ...(schema.description && { description: schema.description }),
    schema,
  }));
  const answers = PROBLEMS.map(([status, description]) => [
    status,
    {
      description,
      content: { 'application/problem+json': { schema: { $ref: '#/components/schemas/Problem' } } },
    },
  ]);
  return {
    operationId: id,
    summary,
    description: `Needs a key with the scope \`${scope}\`.`,
    ...(method === 'get'
      ? { parameters }
      : {
          requestBody: {
            required: true,
            content: { 'application/json': { schema: jsonOf(input, 'input') } },
          },
        }),
    responses: {
      200: { description: summary, content: { 'application/json': { schema: jsonOf(output, 'output') } } },
      ...(Object.fromEntries(answers) as Record<string, unknown>),
    },
  };
}
