import { SiteLinkButton } from '@/kit/site-link';

type Props = {
  label: string;
  name: string;
  /** How long it lasts, and what it costs, in words. */
  words: string;
  price: string;
  button: string;
  href: string;
};

/** Something that is bought once, small enough for a page or a post. */
export function BuyCard({ label, name, words, price, button, href }: Props) {
  return (
    <aside
      aria-label={label}
      className="flex flex-wrap items-center gap-x-5 gap-y-3 rounded-xl border border-line bg-surface px-5 py-4 text-base leading-normal text-ink"
    >
      <div className="min-w-48 flex-1">
        <p className="font-display text-lg font-semibold">{name}</p>
        <p className="text-[0.9375rem] text-muted">{words}</p>
      </div>
      <SiteLinkButton href={href}>
        {button} {price}
      </SiteLinkButton>
    </aside>
  );
}
