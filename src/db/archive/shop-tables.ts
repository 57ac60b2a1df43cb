/** What a table's rows are to the people of a shop. */
export const RECORD_GROUPS = [
  'Shop and people',
  'Machines and settings',
  'Materials',
  'Check sheets',
  'Readings and scans',
  'Corrections and confirmations',
  'History and events',
  'Daily checks and policies',
  'Rolls',
  'Jobs',
] as const;
export type RecordGroup = (typeof RECORD_GROUPS)[number];

export interface ShopTable {
  readonly name: string;
  readonly group: RecordGroup;
  /** Condition by which a row belongs to the shop whose id is $1. */
  readonly where: string;
  /** Columns that tell rows apart, in their order. */
  readonly key: readonly string[];
  /** Order of the rows where it carries meaning; otherwise by key. */
  readonly orderBy?: string;
  /** Columns that the database counts by itself. */
  readonly leftOut?: readonly string[];
  /** Rows that may be tens of megabytes each. */
  readonly isLarge?: true;
}

type More = Partial<Pick<ShopTable, 'key' | 'orderBy' | 'leftOut' | 'isLarge'>>;

/** A list of tables as it grows: each may name those before it. */
function growing() {
  const tables: ShopTable[] = [];
  const add = (group: RecordGroup, name: string, where: string, more: More = {}) =>
    tables.push({ group, name, where, key: ['id'], ...more });
  const within = (column: string, owner: string): string => {
    const found = tables.find((t) => t.name === owner);
    if (!found) throw new Error(`table ${owner} must be listed before those that hang on it`);
    return `${column} in (select id from "${owner}" where ${found.where})`;
  };
  return { tables, add, within };
}
type Growing = ReturnType<typeof growing>;

function addMachines({ add, within }: Growing): void {
  add('Shop and people', 'shop', 'id = $1');
  add('Shop and people', 'person', 'shop_id = $1');
  add('Materials', 'material', 'shop_id = $1');
  for (const name of ['printer', 'mark_scheme', 'cutter', 'program'])
    add('Machines and settings', name, 'shop_id = $1');
  add('Machines and settings', 'print_mode', within('printer_id', 'printer'));
  add('Machines and settings', 'setup', 'shop_id = $1');
  add('Machines and settings', 'simulated_setup', within('setup_id', 'setup'), { key: ['setup_id'] });
  add(
    'Machines and settings',
    'machine_setting',
    `(${within('cutter_id', 'cutter')} or ${within('program_id', 'program')})`,
  );
}

function addCalibrations({ add, within }: Growing): void {
  const calibrations = `select c.id, c.sheet_definition_id from calibration c where ${within('c.setup_id', 'setup')}`;
  const sheets = `select s.sheet_definition_id from calibration_sheet s join (${calibrations}) c on c.id = s.calibration_id`;
  const isUsed = (column: string) =>
    `${column} in (select u.sheet_definition_id from (${calibrations}) u union ${sheets})`;
  add('Check sheets', 'sheet_definition', isUsed('id'));
  add('Check sheets', 'sheet_spot', isUsed('sheet_definition_id'), { key: ['sheet_definition_id', 'spot_no'] });
  add('Check sheets', 'sheet_figure', isUsed('sheet_definition_id'), {
    key: ['sheet_definition_id', 'set_no', 'spot_no', 'axis', 'kind'],
  });
  add('Check sheets', 'calibration', within('setup_id', 'setup'));
  add('Check sheets', 'calibration_sheet', within('calibration_id', 'calibration'));
  add('Check sheets', 'print_check', within('calibration_sheet_id', 'calibration_sheet'));
  add('Check sheets', 'mark_attempt', within('calibration_id', 'calibration'));

  const corrections = 'Corrections and confirmations';
  add(corrections, 'fit', within('calibration_id', 'calibration'));
  add(corrections, 'load_map', within('fit_id', 'fit'), { key: ['fit_id', 'load_no'] });
  add(corrections, 'correction', within('setup_id', 'setup'));
  for (const name of ['correction_setting', 'correction_typed'])
    add(corrections, name, within('correction_id', 'correction'), { key: ['correction_id', 'machine_setting_id'] });
  add(corrections, 'confirmation', within('correction_id', 'correction'));

  const read = 'Readings and scans';
  add(read, 'cut_set', within('calibration_sheet_id', 'calibration_sheet'));
  add(read, 'reading', within('cut_set_id', 'cut_set'));
  add(read, 'scan', within('cut_set_id', 'cut_set'));
  add(read, 'scan_original', within('scan_id', 'scan'), { key: ['scan_id', 'no'], isLarge: true });
  add(corrections, 'fit_reading', within('fit_id', 'fit'), { key: ['fit_id', 'reading_id'] });
}

function addRecord({ add, within }: Growing): void {
  add('Machines and settings', 'setting_value', within('machine_setting_id', 'machine_setting'));
  add('Machines and settings', 'which_way_test', within('machine_setting_id', 'machine_setting'));
  add('Machines and settings', 'mark_use_test', within('cutter_id', 'cutter'));

  add(
    'History and events',
    'event',
    `(${[
      within('setup_id', 'setup'),
      within('printer_id', 'printer'),
      within('cutter_id', 'cutter'),
      within('program_id', 'program'),
    ].join(' or ')})`,
  );
  add('History and events', 'history_entry', within('setup_id', 'setup'), { orderBy: 'seq', leftOut: ['seq'] });
  add('History and events', 'history_note', within('history_entry_id', 'history_entry'));

  add('Rolls', 'roll_run', within('setup_id', 'setup'));
  add('Rolls', 'station_reading', within('roll_run_id', 'roll_run'));

  add('Jobs', 'job', 'shop_id = $1');
  add('Jobs', 'job_art', within('job_id', 'job'), { isLarge: true });
  add('Jobs', 'locked_layout', within('job_id', 'job'));
  add('Jobs', 'locked_file', within('locked_layout_id', 'locked_layout'), {
    key: ['locked_layout_id', 'kind'],
    isLarge: true,
  });
  add('Jobs', 'job_print', within('locked_layout_id', 'locked_layout'));
  add('Jobs', 'cut_release', within('locked_layout_id', 'locked_layout'), { isLarge: true });
  add('Jobs', 'job_result', within('job_id', 'job'));

  add('Jobs', 'test_cut', within('cutter_id', 'cutter'));
  add('Check sheets', 'mark_reading', within('setup_id', 'setup'));

  const daily = 'Daily checks and policies';
  add(daily, 'policy', within('setup_id', 'setup'));
  add(daily, 'daily_check', within('setup_id', 'setup'));
  add(daily, 'daily_disc', within('daily_check_id', 'daily_check'), { key: ['daily_check_id', 'disc_no'] });
  add(daily, 'daily_check_taken_back', within('daily_check_id', 'daily_check'), { key: ['daily_check_id'] });
}

function shopTables(): readonly ShopTable[] {
  const list = growing();
  addMachines(list);
  addCalibrations(list);
  addRecord(list);
  return list.tables;
}

/**
 * Every table of a shop, each after those that its rows name, and how a row belongs to the shop. An archive is all of them;
 * a table that is missing in an older database is passed over.
 */
export const SHOP_TABLES: readonly ShopTable[] = shopTables();

/** Tables of the database that belong to no shop: who may come in from beyond this machine. */
export const DOOR_TABLES = ['access', 'signed_in', 'sign_in_attempt'] as const;

/** Tables of check sheets: shared between shops, and known by their content. One that is there already is named by its id there. */
export const SHARED_TABLES: ReadonlySet<string> = new Set(['sheet_definition', 'sheet_spot', 'sheet_figure']);
