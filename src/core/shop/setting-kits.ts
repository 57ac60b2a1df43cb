import type { MachineSetting } from '../setting/machine-setting';

/** What a newly described setting needs; everything else has a usual value. */
export type SettingTemplate = Pick<
  MachineSetting,
  'displayName' | 'kind' | 'actsOn' | 'unit' | 'step' | 'minValue' | 'maxValue' | 'entry' | 'combine'
> & { readonly unitSize?: number; readonly pressThis?: string; readonly notThat?: string };

/** A generic kind of machine to start from: none is a real one, everything can be changed afterwards. */
export interface SettingKit {
  readonly id: string;
  readonly title: string;
  readonly words: string;
  /** Kept by the program instead of the cutter. */
  readonly isInProgram: boolean;
  readonly settings: readonly SettingTemplate[];
}

const offset = (displayName: string, actsOn: 'offset_across' | 'offset_along', step = 0.1): SettingTemplate => ({
  displayName,
  kind: 'typed',
  actsOn,
  unit: 'mm',
  step,
  minValue: -20,
  maxValue: 20,
  entry: 'new_value',
  combine: 'replaces',
});

const scale = (displayName: string, actsOn: 'scale_across' | 'scale_along'): SettingTemplate => ({
  displayName,
  kind: 'typed',
  actsOn,
  unit: 'percent',
  step: 0.02,
  minValue: -2,
  maxValue: 2,
  entry: 'new_value',
  combine: 'replaces',
});

const wizardLine = (displayName: string, actsOn: 'offset_across' | 'offset_along'): SettingTemplate => ({
  displayName,
  kind: 'wizard',
  actsOn,
  unit: 'step',
  unitSize: 0.1,
  step: 1,
  minValue: -10,
  maxValue: 10,
  entry: 'change',
  combine: 'adds',
});

const TWO = [offset('SIDEWAYS', 'offset_across'), offset('ALONG THE FEED', 'offset_along')];

export const SETTING_KITS: readonly SettingKit[] = [
  {
    id: 'two-offsets',
    title: 'Two offsets on its display',
    words: 'One sideways, one along the feed, typed in mm.',
    isInProgram: false,
    settings: TWO,
  },
  {
    id: 'offsets-and-scales',
    title: 'Offsets and scales',
    words: 'Two offsets in mm and two scales in percent.',
    isInProgram: false,
    settings: [...TWO, scale('SCALE SIDEWAYS', 'scale_across'), scale('SCALE ALONG', 'scale_along')],
  },
  {
    id: 'feed-pair',
    title: 'Offsets and a measured length',
    words: 'Two offsets, and a length typed as nominal and measured.',
    isInProgram: false,
    settings: [
      ...TWO,
      {
        displayName: 'MEASURED LENGTH',
        kind: 'typed',
        actsOn: 'feed_length',
        unit: 'nominal_measured',
        unitSize: 500,
        step: 0.1,
        minValue: 490,
        maxValue: 510,
        entry: 'new_value',
        combine: 'replaces',
      },
    ],
  },
  {
    id: 'wizard',
    title: 'A wizard with lines to pick',
    words: 'It cuts lines, you pick one; the value stays hidden.',
    isInProgram: false,
    settings: [wizardLine('LINES SIDEWAYS', 'offset_across'), wizardLine('LINES ALONG', 'offset_along')],
  },
  {
    id: 'after-test-print',
    title: 'Only after its own test print',
    words: 'It asks for the correction once, right after a test print.',
    isInProgram: false,
    settings: TWO.map((s) => ({
      ...s,
      kind: 'after_test_print',
      entry: 'change',
      combine: 'adds',
      pressThis: 'the key that leads to the adjustment',
      notThat: 'the key that ends the test print: the chance to type is gone then',
    })),
  },
  {
    id: 'in-program',
    title: 'In the program',
    words: 'Two offsets in the sending program, lost with it on a new install or another computer.',
    isInProgram: true,
    settings: TWO,
  },
  {
    id: 'nothing',
    title: 'Nothing to set, or I do not know',
    words: 'The cut is moved in the file, or a border hides the error.',
    isInProgram: false,
    settings: [],
  },
];

export const settingKit = (id: string): SettingKit | undefined => SETTING_KITS.find((kit) => kit.id === id);
