import { privateFeedAs, type TokenProps } from '@/app/private-feed';

export const GET = (_: Request, props: TokenProps): Promise<Response> =>
  privateFeedAs(props, 'application/atom+xml', (feed) => feed.atom1());
