import { desk } from '@/words/desk';

/** How a pass is got: "By a shared password". */
export const passWays = ({ hasPassword, byAddress }: { hasPassword: boolean; byAddress: boolean }): string =>
  desk('desk-access.pass-ways', {
    ways: hasPassword && byAddress ? 'both' : hasPassword ? 'password' : byAddress ? 'address' : 'none',
  });
