import { listGroups } from '@/people/store/groups';
import { shelved } from '@/platform/shelf';
import { pool } from '@/platform/store/db';

/** All groups, read once for each version of the site. */
export const keptGroups = () => shelved('groups', () => listGroups(pool()));
