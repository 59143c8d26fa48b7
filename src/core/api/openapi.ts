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
  memberFileOutput,
  memberInput,
  membersInput,
  membersOutput,
  orderInput,
  orderOutput,
  putOrderInput,
  subscriptionsInput,
  subscriptionsOutput,
  problemOutput,
} from './schemas';
import type { Scope } from './scopes';

export type Operation = {
  id: string;
  method: 'get' | 'post' | 'put' | 'delete';
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
  {
    id: 'listMembers',
    method: 'get',
    path: '/api/v1/members',
    summary: 'Members, who joined last first',
    scope: 'members:read',
    input: membersInput,
    output: membersOutput,
  },
  {
    id: 'readMember',
    method: 'get',
    path: '/api/v1/members/{id}',
    summary: 'A member with what they hold, and why',
    scope: 'members:read',
    input: memberInput,
    output: memberFileOutput,
  },
  {
    id: 'listSubscriptions',
    method: 'get',
    path: '/api/v1/subscriptions',
    summary: 'Subscriptions, the newest first',
    scope: 'members:read',
    input: subscriptionsInput,
    output: subscriptionsOutput,
  },
  {
    id: 'readOrder',
    method: 'get',
    path: '/api/v1/orders/{order}',
    summary: 'What was given by an order of another program',
    scope: 'members:read',
    input: orderInput,
    output: orderOutput,
  },
  {
    id: 'putOrder',
    method: 'put',
    path: '/api/v1/orders/{order}',
    summary:
      'Gives a tier or a pass by such an order, or changes when it ends; sent again, it changes nothing',
    scope: 'members:write',
    input: putOrderInput,
    output: orderOutput,
  },
  {
    id: 'endOrder',
    method: 'delete',
    path: '/api/v1/orders/{order}',
    summary: 'Ends what was given by such an order, at once',
    scope: 'members:write',
    input: orderInput,
    output: orderOutput,
  },
];

export const PROBLEMS: [status: number, words: string][] = [
  [400, 'Something in the request cannot be used; `errors` says what.'],
  [401, 'There is no key, or it is unknown, has ended or was revoked.'],
  [403, 'The key lacks the scope, or the one who made it lacks the right.'],
  [404, 'There is no such item, viewpoint, member or order.'],
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

/** What is in the address is not said again in the body. */
const bodyOf = (input: z.ZodObject, isInPath: (name: string) => boolean): z.ZodObject =>
  z.object(Object.fromEntries(Object.entries(input.shape).filter(([name]) => !isInPath(name))));

function described({ id, method, path, summary, scope, input, output }: Operation): Record<string, unknown> {
  const { properties = {}, required = [] } = jsonOf(input, 'input') as {
    properties?: Record<string, { description?: string }>;
    required?: string[];
  };
  const isInPath = (name: string): boolean => path.includes(`{${name}}`);
  const hasBody = method === 'post' || method === 'put';
  const asParameters = Object.entries(properties).filter(([name]) => !hasBody || isInPath(name));
  const parameters = asParameters.map(([name, schema]) => ({
    name,
    in: isInPath(name) ? 'path' : 'query',
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
    ...(parameters.length > 0 && { parameters }),
    ...(hasBody && {
      requestBody: {
        required: true,
        content: { 'application/json': { schema: jsonOf(bodyOf(input, isInPath), 'input') } },
      },
    }),
    responses: {
      200: { description: summary, content: { 'application/json': { schema: jsonOf(output, 'output') } } },
      ...(Object.fromEntries(answers) as Record<string, unknown>),
    },
  };
}
