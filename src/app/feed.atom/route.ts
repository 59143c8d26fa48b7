import { feedAs } from '@/app/public-feed';

export const GET = (): Promise<Response> => feedAs('application/atom+xml', (feed) => feed.atom1());
