import type { AnchorHTMLAttributes } from 'react';
import { buttonClass, type Look } from './button';

type Props = AnchorHTMLAttributes<HTMLAnchorElement> & { href: string };

/**
 * A link on the site, plain: its pages are small and come whole, and a script behind each link would cost every reader more
 * than it saves. The Desk, where people stay for hours, has the framework's.
 */
export function SiteLink(props: Props) {
  return <a {...props} />;
}

/** The same, as a button. */
export function SiteLinkButton({ look = 'main', className, ...rest }: Props & { look?: Look }) {
  return <a className={buttonClass(look, className)} {...rest} />;
}
