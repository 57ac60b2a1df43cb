import 'server-only';
import { randomUUID } from 'node:crypto';
import { THING_FIELDS, THING_KINDS, type ThingKind } from '@/contracts/shop';
import type { FeedDirection } from '@/core/geometry/load';
import type { MachineSetting } from '@/core/setting/machine-setting';
import type { Database } from '@/db/client';
import { findSetting } from '@/db/queries/settings';
import { findSetups } from '@/db/queries/shop';
import { readMachines, readSettingsOf, type Machines } from './shop-read';

export const isThingKind = (kind: string): kind is ThingKind => THING_KINDS.some((k) => k === kind);

/** What a new thing starts from. */
const BLANK: Readonly<Record<ThingKind, Readonly<Record<string, unknown>>>> = {
  person: { name: '', unitSystem: 'mm', timeZone: 'UTC' },
  printer: {},
  printMode: {},
  program: {},
  cutter: {},
  markScheme: {
    name: '',
    kind: 'four_corners',
    sizeMm: 10,
    insetMm: 15.9,
    keepOutMm: 5,
    edgeMinMm: 10,
    leadingMark: '',
    readingOrder: '',
  },
  material: {
    name: '',
    finish: 'matt',
    form: 'sheet',
    widthMm: null,
    printableWidthMm: null,
    thicknessMm: null,
    colour: 'white',
    transparency: 'opaque',
    carrier: '',
    dryingHours: 0,
    thermalPerK: null,
    thermalSource: '',
    humidityPerPercent: null,
    humiditySource: '',
    cost: '',
  },
  setting: {
    displayName: '',
    kind: 'typed',
    actsOn: 'offset_across',
    unit: 'mm',
    unitSize: null,
    step: 0.1,
    minValue: -20,
    maxValue: 20,
    sense: null,
    entry: 'new_value',
    combine: 'replaces',
    pivot: 'first_mark',
    scalesOffset: 'unknown',
    pressThis: '',
    notThat: '',
  },
};

/** Kinds that can be made by themselves; the others come with a printer + cutter, or with their owner. */
const CAN_BE_NEW: readonly ThingKind[] = ['person', 'markScheme', 'material', 'setting'];

export interface Thing {
  readonly kind: ThingKind;
  readonly id: string;
  readonly ownerId: string | null;
  readonly title: string;
  readonly values: Readonly<Record<string, unknown>>;
  /** Settings that hang on it: a cutter's or a program's. */
  readonly settings: readonly MachineSetting[];
  readonly marks: readonly { readonly value: string; readonly label: string }[];
  /** Of a setting: how the machine that it belongs to is fed. */
  readonly feed: FeedDirection;
}

function rowsOf(machines: Machines, kind: Exclude<ThingKind, 'setting'>): readonly { readonly id: string }[] {
  const lists = {
    person: machines.people,
    printer: machines.printers,
    printMode: machines.modes,
    program: machines.programs,
    cutter: machines.cutters,
    markScheme: machines.markSchemes,
    material: machines.materials,
  };
  return lists[kind];
}

/** The fields of a row that a form may write. */
function fieldsOfRow(kind: ThingKind, row: Readonly<Record<string, unknown>>): Readonly<Record<string, unknown>> {
  const names = Object.keys(THING_FIELDS[kind].shape);
  return Object.fromEntries(names.map((name) => [name, row[name] ?? null]));
}

/** How the machine of a setting is fed: of a program's, the first cutter that it sends to. */
async function feedOf(database: Database, shopId: string, ownerId: string | null): Promise<FeedDirection> {
  const rows = await findSetups(database, shopId);
  return rows.find((r) => r.cutter.id === ownerId || r.program?.id === ownerId)?.cutter.feeds ?? 'away';
}

async function settingThing(
  database: Database,
  machines: Machines,
  id: string,
): Promise<Omit<Thing, 'marks' | 'feed'> | null> {
  const row = await findSetting(database, id);
  const owner = row?.cutterId ?? row?.programId ?? null;
  const isOwn = machines.cutters.some((c) => c.id === owner) || machines.programs.some((p) => p.id === owner);
  if (!row || !isOwn) return null;
  return {
    kind: 'setting',
    id,
    ownerId: owner,
    title: row.displayName,
    values: fieldsOfRow('setting', row),
    settings: [],
  };
}

async function settingsOn(database: Database, kind: ThingKind, id: string): Promise<readonly MachineSetting[]> {
  if (kind === 'cutter') return readSettingsOf(database, { cutterId: id });
  return kind === 'program' ? readSettingsOf(database, { programId: id }) : [];
}

/** One thing for its form: as it stands, or blank for a new one. */
export async function readThing(
  database: Database,
  shopId: string,
  asked: { readonly kind: ThingKind; readonly id: string; readonly ownerId: string | null },
): Promise<Thing | null> {
  const { kind, id, ownerId } = asked;
  const machines = await readMachines(database, shopId);
  const marks = machines.markSchemes.map((s) => ({ value: s.id, label: s.name }));
  if (id === 'new') {
    if (!CAN_BE_NEW.includes(kind)) return null;
    const feed = await feedOf(database, shopId, ownerId);
    return { kind, id: randomUUID(), ownerId, title: '', values: BLANK[kind], settings: [], marks, feed };
  }
  if (kind === 'setting') {
    const thing = await settingThing(database, machines, id);
    return thing && { ...thing, marks, feed: await feedOf(database, shopId, thing.ownerId) };
  }
  const row = rowsOf(machines, kind).find((r) => r.id === id) as Readonly<Record<string, unknown>> | undefined;
  if (!row) return null;
  return {
    kind,
    id,
    ownerId: null,
    title: String(row.name),
    values: fieldsOfRow(kind, row),
    settings: await settingsOn(database, kind, id),
    marks,
    feed: 'away',
  };
}
