import { compileRules, type Covering } from '@/core/access/compile';
import { listRules, type StoredRule } from '@/access/store/rules';
import { shelved } from '@/platform/shelf';
import { pool } from '@/platform/store/db';

export type KeptRules = { rules: StoredRule[]; covering: Covering<StoredRule> };

/** All access rules, sorted by what they cover; read once for each version of the site. */
export const keptRules = (): Promise<KeptRules> =>
  shelved('rules', async () => {
    const rules = await listRules(pool());
    return { rules, covering: compileRules(rules) };
  });
