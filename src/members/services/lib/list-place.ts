import { z } from 'zod';
import type { ListPlace, MemberSort } from '@/members/store/member-lists';

const isInstant = (key: string): boolean => /^\d{4}-\d\d-\d\d \d\d:\d\d:\d\d(\.\d+)?\+00$/.test(key);

/** The place of a member in a list as an address has it: what they are sorted by, and their id. Undefined where it cannot be read. */
export function placeOf(typed: string, sort: MemberSort): ListPlace | undefined {
  const [, id = '', key = ''] = /^([0-9a-f-]{36})~(.*)$/s.exec(typed) ?? [];
  return z.uuid().safeParse(id).success && (sort === 'name' || isInstant(key)) ? { id, key } : undefined;
}

export const placeText = ({ id, key }: ListPlace): string => `${id}~${key}`;
