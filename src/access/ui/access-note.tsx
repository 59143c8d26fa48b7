import type { KeyCut } from '@/core/key-cut';
import { KeyGlyph, TierName } from '@/kit/key-cut';
import { desk } from '@/words/desk';

type Props = {
  openers:
    | { to: 'everyone' }
    | { to: 'signed-in' }
    | { to: 'tiers'; tiers: { id: string; name: string; keyCut: KeyCut }[] }
    | null;
};

const NAMED = 2;

/** At a glance, who is let in: the keys that open it, with their names where there are few. */
export function AccessNote({ openers }: Props) {
  if (openers === null) return <span className="text-muted">{desk('desk-access.not-published')}</span>;
  if (openers.to === 'everyone') return <span className="text-open">{desk('desk.open-to-everyone')}</span>;
  if (openers.to === 'signed-in')
    return <span className="text-later">{desk('desk-access.open-to-everyone-signed-in')}</span>;
  if (openers.tiers.length === 0)
    return <span className="text-closed">{desk('desk-access.no-tier-opens-it-now')}</span>;
  if (openers.tiers.length > NAMED) {
    return (
      <ul className="flex flex-wrap gap-x-3 gap-y-1">
        {openers.tiers.map((tier) => (
          <li key={tier.id} title={tier.name} className="flex">
            <KeyGlyph cut={tier.keyCut} size={15} />
            <span className="sr-only">{tier.name}</span>
          </li>
        ))}
      </ul>
    );
  }
  return (
    <span className="flex flex-wrap gap-x-3">
      {openers.tiers.map((tier) => (
        <TierName key={tier.id} cut={tier.keyCut} name={tier.name} />
      ))}
    </span>
  );
}

type SetByProps = { setBy: { by: 'own' | 'inherited' | 'default'; rules: { id: string; name: string }[] } };

/** Where an item's access comes from: set for it alone, inherited from a rule for more than it, or the site's default. */
export function SetByNote({ setBy }: SetByProps) {
  if (setBy.by === 'default') return <span className="text-muted">{desk('desk-access.set-by-default')}</span>;
  if (setBy.by === 'own') return <span className="font-semibold">{desk('desk-access.set-for-it')}</span>;
  const names = setBy.rules.map(({ name }) => `“${name}”`).join(', ');
  return <span className="text-muted">{desk('desk-access.set-by', { rules: names })}</span>;
}
