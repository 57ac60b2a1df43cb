import 'server-only';

/** The one door to the database for actions and pages: they hand it to services and never query themselves. */
export { database } from '@/db/client';
