import 'server-only';
import type { ImportKind } from '@/contracts/import';
import { FORCE_UNITS, TEST_CUT_OUTCOMES } from '@/core/shop/test-cut';
import type { TableColumn } from '@/formats/csv/read-table';

type Kind = TableColumn['kind'];

const column = (
  [key, title, kind]: readonly [string, string, Kind],
  alike: readonly string[] = [],
  isRequired = true,
): TableColumn => ({ key, title, kind, alike, isRequired });

const optional = (names: readonly [string, string, Kind], alike: readonly string[] = []): TableColumn =>
  column(names, alike, false);

/** Each word stands for itself. */
const itself = (words: readonly string[]): Readonly<Record<string, string>> =>
  Object.fromEntries(words.map((w) => [w, w]));

const AT = column(['at', 'at', 'moment'], ['date', 'day', 'when', 'time']);
const MATERIAL = column(['material', 'material', 'text'], ['stock', 'media', 'film']);
const NOTE = optional(['note', 'note', 'text'], ['remark', 'comment']);

/** Columns of each kind of table: those of the lists that are given out here, and other names for them. */
export const IMPORT_COLUMNS: Readonly<Record<ImportKind, readonly TableColumn[]>> = {
  'daily-checks': [
    AT,
    column(['setup', 'printer + cutter', 'text'], ['setup', 'machine', 'cutter']),
    MATERIAL,
    // What two discs told has no borders: it comes back with a whole archive, not in a table.
    { ...optional(['method', 'method', 'choice'], ['measured by']), choices: itself(['hand', 'photo']) },
    {
      ...optional(['side', 'side', 'choice']),
      choices: { ...itself(['outside', 'inside']), out: 'outside', in: 'inside' },
    },
    column(['leftMm', 'left mm', 'length'], ['left border']),
    column(['rightMm', 'right mm', 'length'], ['right border']),
    column(['topMm', 'top mm', 'length'], ['top border']),
    column(['bottomMm', 'bottom mm', 'length'], ['bottom border']),
    NOTE,
  ],
  'test-cuts': [
    AT,
    column(['cutter', 'cutter', 'text'], ['machine']),
    MATERIAL,
    optional(['stack', 'stack', 'text'], ['with']),
    optional(['force', 'force', 'number'], ['pressure', 'force gf']),
    { ...optional(['forceUnit', 'force in', 'choice'], ['force unit']), choices: itself(FORCE_UNITS) },
    optional(['depth', 'depth', 'number'], ['blade depth']),
    optional(['speed', 'speed', 'number']),
    optional(['passes', 'passes', 'number']),
    {
      ...column(['outcome', 'outcome', 'choice'], ['result', 'came out']),
      choices: { ...itself(TEST_CUT_OUTCOMES), good: 'clean', 'not through': 'not_through', 'too deep': 'liner_cut' },
    },
    NOTE,
  ],
  materials: [
    column(['name', 'name', 'text'], ['material']),
    column(['finish', 'finish', 'text'], ['surface']),
    { ...optional(['form', 'form', 'choice']), choices: itself(['sheet', 'roll']) },
    optional(['widthMm', 'width mm', 'length'], ['roll width']),
    optional(['printableWidthMm', 'printable width mm', 'length']),
    optional(['thicknessMm', 'thickness mm', 'length']),
    { ...optional(['colour', 'colour', 'choice'], ['color']), choices: itself(['white', 'light', 'dark', 'metallic']) },
    { ...optional(['transparency', 'transparency', 'choice']), choices: itself(['opaque', 'translucent', 'clear']) },
    optional(['carrier', 'carrier', 'text'], ['backing', 'liner']),
    optional(['dryingHours', 'drying h', 'number'], ['drying', 'drying hours']),
    optional(['cost', 'cost', 'text'], ['price']),
  ],
};
