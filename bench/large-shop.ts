/** Fills the database that DATABASE_URL names with the shop of ten years. Part of `npm run bench`. */
import { Client } from 'pg';
import { largeShopScript } from '../scripts/large-shop';

const client = new Client({ connectionString: process.env.DATABASE_URL });
await client.connect();
await client.query(largeShopScript(50, 200));
await client.end();
