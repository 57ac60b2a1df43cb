import 'server-only';
import { and, asc, desc, eq, gte, sql } from 'drizzle-orm';
import type { Session } from '../client';
import { event } from '../schema/correction';
import { markReading, testCut } from '../schema/floor';
import { job, jobResult } from '../schema/job';
import { setup } from '../schema/machines';
import { material, person } from '../schema/shop';
import { IS_NEWEST_RESULT } from './job';

/** Test cuts of a cutter, newest first. */
export async function findTestCuts(session: Session, cutterId: string, most: number) {
  return session
    .select({ testCut, materialName: material.name, personName: person.name })
    .from(testCut)
    .innerJoin(material, eq(testCut.materialId, material.id))
    .innerJoin(person, eq(testCut.by, person.id))
    .where(eq(testCut.cutterId, cutterId))
    .orderBy(desc(testCut.at), desc(testCut.id))
    .limit(most);
}

/** Test cuts of one material and stack on a cutter, oldest first. */
export async function findTestCutsOf(
  session: Session,
  { cutterId, materialId, stack }: { readonly cutterId: string; readonly materialId: string; readonly stack: string },
) {
  return session
    .select()
    .from(testCut)
    .where(
      and(
        eq(testCut.cutterId, cutterId),
        eq(testCut.materialId, materialId),
        sql`lower(${testCut.stack}) = ${stack.toLowerCase()}`,
      ),
    )
    .orderBy(asc(testCut.at), asc(testCut.id));
}

/** When the blade in a cutter was put in, with what was written beside it; null: never told. One that was taken back is none. */
export async function findBlade(session: Session, cutterId: string) {
  const [found] = await session
    .select({ id: event.id, at: event.at, note: event.note, personName: person.name })
    .from(event)
    .innerJoin(person, eq(event.by, person.id))
    .where(
      and(
        eq(event.cutterId, cutterId),
        eq(event.kind, 'new_blade'),
        sql`not exists (select 1 from event u where u.undoes_id = ${event.id})`,
      ),
    )
    .orderBy(desc(event.at))
    .limit(1);
  return found ?? null;
}

/** How often marks were looked for and found, by everything that may matter. @param setupId of one setup alone; absent: of all. */
export async function countMarkReadings(session: Session, shopId: string, setupId: string | undefined) {
  return session
    .select({
      ...{
        material: material.name,
        finish: markReading.finish,
        carrier: markReading.carrier,
        light: markReading.light,
      },
      insetMm: markReading.insetMm,
      tries: sql<number>`count(*)::int`,
      hits: sql<number>`count(*) filter (where ${markReading.wasRead})::int`,
    })
    .from(markReading)
    .innerJoin(setup, eq(markReading.setupId, setup.id))
    .innerJoin(material, eq(markReading.materialId, material.id))
    .where(and(eq(setup.shopId, shopId), setupId === undefined ? undefined : eq(setup.id, setupId)))
    .groupBy(material.name, markReading.finish, markReading.carrier, markReading.light, markReading.insetMm);
}

/** Light that was told last at a setup. */
export async function findLastLight(session: Session, setupId: string) {
  const [found] = await session
    .select({ light: markReading.light })
    .from(markReading)
    .where(eq(markReading.setupId, setupId))
    .orderBy(desc(markReading.at))
    .limit(1);
  return found?.light ?? 'not_told';
}

/** How each job of a shop came out since a moment, as it was told last; newest first. */
export async function findAllResults(session: Session, shopId: string, since: Date) {
  return session
    .select({
      ...{ jobId: job.id, jobName: job.name, jobNumber: job.number, setupName: setup.name },
      ...{ materialName: material.name, good: jobResult.good, spoiled: jobResult.spoiled },
      ...{ spoiledCost: jobResult.spoiledCost, note: jobResult.note, at: jobResult.at },
    })
    .from(jobResult)
    .innerJoin(job, eq(jobResult.jobId, job.id))
    .innerJoin(setup, eq(job.setupId, setup.id))
    .innerJoin(material, eq(job.materialId, material.id))
    .where(and(eq(job.shopId, shopId), gte(jobResult.at, since), IS_NEWEST_RESULT))
    .orderBy(desc(jobResult.at));
}
