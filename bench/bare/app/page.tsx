import { headers } from 'next/headers';
import pg from 'pg';

const pool = new pg.Pool({ connectionString: process.env.DATABASE_URL });

/** What a page of the framework costs that asks the database once, and does nothing else. */
export default async function Page() {
  await headers();
  const { rows } = await pool.query<{ name: string }>('SELECT name FROM site');
  return <h1>{rows[0]?.name}</h1>;
}
