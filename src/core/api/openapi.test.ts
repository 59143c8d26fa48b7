import { powersOf } from '../staff';
import { describe, expect, it } from 'vitest';
import { OPERATIONS, openApi } from './openapi';
import { decisionInput, decisionsInput, itemsInput } from './schemas';
import { mayGrant, SCOPES } from './scopes';

describe('the description of the API', () => {
  const described = openApi({ name: 'Lantern Moor', server: 'https://moor.example' });
  const paths = described.paths as Record<string, Record<string, Described>>;
  type Described = {
    parameters?: { name: string; in: string; required: boolean; schema: object }[];
    requestBody?: { content: Record<string, { schema: { properties: object } }> };
    responses: Record<string, { content: Record<string, { schema: object }> }>;
  };

  it('is OpenAPI 3.1 and has every operation, with its fields, its answer and its problems', () => {
    expect(described).toMatchObject({ openapi: '3.1.0', servers: [{ url: 'https://moor.example' }] });
    for (const { path, method, input, output } of OPERATIONS) {
      const operation = paths[path]?.[method];
      const fields = Object.keys(input.shape);
      expect([
        ...(operation?.parameters ?? []).map(({ name }) => name),
        ...Object.keys(operation?.requestBody?.content['application/json']?.schema.properties ?? {}),
      ]).toEqual(fields);
      expect(operation?.requestBody !== undefined).toBe(method === 'post' || method === 'put');
      expect(operation?.responses[200]?.content['application/json']?.schema).toHaveProperty('properties');
      expect(operation?.responses[401]?.content).toHaveProperty('application/problem+json');
      expect(output).toBeDefined();
    }
  });

  it('says what is in the address, and what has to be sent', () => {
    const parameters = paths['/api/v1/items/{id}']?.get?.parameters ?? [];
    expect(parameters.map(({ name, in: place, required }) => [name, place, required])).toEqual([
      ['id', 'path', true],
      ['as', 'query', false],
      ['on', 'query', false],
    ]);
  });
});

describe('what the API takes', () => {
  it('is a viewpoint, a visitor’s where none is named, and a day that exists', () => {
    expect(decisionInput.parse({ item: 'a' })).toEqual({ item: 'a', as: 'visitor' });
    expect(decisionInput.safeParse({ item: 'a', on: '2027-02-30' }).success).toBe(false);
    expect(decisionsInput.safeParse({ items: [] }).success).toBe(false);
    expect(decisionsInput.safeParse({ items: Array.from({ length: 501 }, () => 'a') }).success).toBe(false);
    expect(itemsInput.parse({ page: '2' })).toMatchObject({ page: 2, size: 50 });
    expect(itemsInput.safeParse({ size: '101' }).success).toBe(false);
  });
});

it('a key can have the scopes that its maker may use', () => {
  expect(SCOPES.filter((scope) => mayGrant(powersOf('helper', {}), scope))).toEqual([
    'decisions:read',
    'members:read',
    'members:write',
  ]);
  expect(SCOPES.filter((scope) => mayGrant(powersOf('viewer', {}), scope))).toEqual([
    'decisions:read',
    'members:read',
  ]);
  expect(SCOPES.filter((scope) => mayGrant(powersOf('owner', {}), scope))).toEqual([...SCOPES]);
  expect(SCOPES.filter((scope) => mayGrant(null, scope))).toEqual([]);
});
