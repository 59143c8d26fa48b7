import { isLocalDate, type LocalDate } from '../instants';

/** Through whose eyes something is seen, and on which day; null: now. */
export type Viewpoint = { who: ViewpointWho; on: LocalDate | null };
export type ViewpointWho =
  { kind: 'visitor' } | { kind: 'signed-in' } | { kind: 'tier' | 'group' | 'pass' | 'member'; id: string };

const WRITTEN =
  /^(?:(visitor|signed-in)|(tier|group|pass|member):([A-Za-z0-9_-]{1,120}))(?:@(\d{4}-\d{2}-\d{2}))?$/;

/** As whom staff look, and on which day; null: today. `name`: of the tier, the group or the member. */
export type LookingAs = { who: ViewpointWho; name: string; on: LocalDate | null };

/** A viewpoint as an address has it: "visitor", "tier:observer", "member:ID@2027-03-01". Null where it is none. */
export function readViewpoint(written: string): Viewpoint | null {
  const [, plain, kind, id, day] = WRITTEN.exec(written) ?? [];
  const on = day === undefined ? null : isLocalDate(day) ? day : undefined;
  if (on === undefined) return null;
  if (plain === 'visitor' || plain === 'signed-in') return { who: { kind: plain }, on };
  if ((kind === 'tier' || kind === 'group' || kind === 'pass' || kind === 'member') && id)
    return { who: { kind, id }, on };
  return null;
}

export const writeWho = (who: ViewpointWho): string => ('id' in who ? `${who.kind}:${who.id}` : who.kind);
export const writeViewpoint = ({ who, on }: Viewpoint): string => writeWho(who) + (on ? `@${on}` : '');
