import type { LucideIconData } from '@lucide/icons';
import type { SVGAttributes } from 'react';

type Props = SVGAttributes<SVGSVGElement> & { icon: LucideIconData };

/** An icon on the site, drawn on the server: readers load no script for it. Of a size that its class gives. */
export function SiteIcon({ icon, ...rest }: Props) {
  return (
    <svg
      viewBox="0 0 24 24"
      fill="none"
      stroke="currentColor"
      strokeWidth={2}
      strokeLinecap="round"
      strokeLinejoin="round"
      role={rest['aria-label'] ? 'img' : undefined}
      {...rest}
    >
      {icon.node.map(([Shape, { key, ...attributes }]) => (
        <Shape key={String(key)} {...attributes} />
      ))}
    </svg>
  );
}
