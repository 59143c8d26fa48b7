import { KeyRound } from '@lucide/icons';
import { SiteIcon } from '@/kit/site-icon';
import { buttonClass } from '@/kit/button';
import { inputClass } from '@/kit/input-class';
import { SiteLinkButton } from '@/kit/site-link';
import { joinPath } from './tier-offer-card';

type Props = {
  offerId: string;
  label: string;
  /** Shown as a key alone; `label` is what it is called. */
  isIcon: boolean;
  /** What the field for a name is called; null where none is asked for here. */
  nameLabel: string | null;
  /** The address people return to once they have joined. */
  here: string;
};

/** A button that leads to joining by one offer. A name that was typed is there at checkout. */
export function JoinButton({ offerId, label, isIcon, nameLabel, here }: Props) {
  const shown = isIcon ? <SiteIcon icon={KeyRound} className="size-5" aria-hidden /> : label;
  const named = isIcon ? { 'aria-label': label, title: label } : {};
  if (nameLabel === null)
    return (
      <SiteLinkButton href={joinPath(offerId, here)} {...named}>
        {shown}
      </SiteLinkButton>
    );
  return (
    <form
      action={`/join/${encodeURIComponent(offerId)}`}
      className="flex max-w-md flex-wrap items-end gap-3 text-base"
    >
      <input type="hidden" name="to" value={here} />
      <label className="grid min-w-40 flex-1 gap-1 font-semibold">
        {nameLabel}
        <input name="name" maxLength={80} autoComplete="name" className={inputClass} />
      </label>
      <button className={buttonClass('main')} {...named}>
        {shown}
      </button>
    </form>
  );
}
