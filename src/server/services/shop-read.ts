import 'server-only';
import type { Database } from '@/db/client';
import { findSettings } from '@/db/queries/settings';
import {
  findCutters,
  findMarkSchemes,
  findMaterials,
  findPersons,
  findPrinters,
  findPrintModes,
  findPrograms,
  findSetups,
} from '@/db/queries/shop';
import { markProblems } from '@/core/shop/marks';
import { materialMarkAdvice } from '@/core/shop/material-marks';
import { schemeOf, unprintableOf } from './setup-marks';

const NOWHERE = { x: 0, y: 0 };

/** Everything that stands in a shop, as it is described. */
export async function readMachines(database: Database, shopId: string) {
  const [printers, modes, cutters, programs, markSchemes, materials, people, rows] = await Promise.all([
    findPrinters(database, shopId),
    findPrintModes(database, shopId),
    findCutters(database, shopId),
    findPrograms(database, shopId),
    findMarkSchemes(database, shopId),
    findMaterials(database, shopId),
    findPersons(database, shopId),
    findSetups(database, shopId),
  ]);
  return {
    printers,
    modes: modes.map((m) => ({ ...m.mode, printerName: m.printer.name })),
    cutters,
    programs,
    markSchemes,
    materials,
    people,
    setups: rows.map((row) => {
      const { printer, printMode } = row;
      return {
        id: row.setup.id,
        name: row.setup.name,
        family: row.setup.family,
        route: row.setup.route,
        machines: [printer.name, printMode.name, row.program?.name, row.cutter.name].filter(Boolean).join(', '),
        markUse: row.cutter.markUse,
        problems: markProblems(schemeOf(row), unprintableOf(row), row.programScheme ? row.cutterScheme : null).map(
          (p) => p.words,
        ),
      };
    }),
  };
}

export type Machines = Awaited<ReturnType<typeof readMachines>>;

/** Settings of one cutter or one program. */
export const readSettingsOf = (database: Database, owner: { cutterId: string } | { programId: string }) =>
  findSettings(
    database,
    'cutterId' in owner
      ? { cutterId: owner.cutterId, programId: null }
      : { cutterId: null, programId: owner.programId },
    NOWHERE,
  );

export const adviceForMaterials = (materials: Machines['materials']) =>
  materials.map((m) => ({ id: m.id, advice: materialMarkAdvice(m) }));
