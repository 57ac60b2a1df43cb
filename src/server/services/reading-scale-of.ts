import 'server-only';
import { eq } from 'drizzle-orm';
import type { ReadingScale } from '@/core/target/reading-scale';
import type { UnitSystem } from '@/core/units/length';
import type { Session } from '@/db/client';
import { person } from '@/db/schema/shop';
import type { Actor } from './actor';

/** Units of a person. */
export async function unitSystemOf(session: Session, { personId }: Actor): Promise<UnitSystem> {
  const [row] = await session.select({ unitSystem: person.unitSystem }).from(person).where(eq(person.id, personId));
  return row?.unitSystem ?? 'mm';
}

/** Unit of the numbers on sheets that a person prints: thousandths of an inch for inch people. */
export async function readingScaleOf(session: Session, actor: Actor): Promise<ReadingScale> {
  return (await unitSystemOf(session, actor)) === 'mm' ? 'mm' : 'thou';
}
