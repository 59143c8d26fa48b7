import NextLink from 'next/link';
import type { ComponentProps } from 'react';

/**
 * A link within the Desk. Its pages are made anew for everyone who looks, so nothing of them can be fetched ahead: left to itself,
 * the framework asks the server about each page that a link in sight leads to, up to fifty for one page, and gains nothing.
 */
export const Link = (props: ComponentProps<typeof NextLink>) => <NextLink prefetch={false} {...props} />;
