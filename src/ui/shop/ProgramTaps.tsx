'use client';

import { decideRoute } from '@/core/shop/decide-route';
import type { Family, KnowsCutBy, MarksPlacedBy, Opens } from '@/core/shop/words';
import { ChoiceCards } from './ChoiceCards';

export interface ProgramDraft {
  /** The cutter takes a plain cut file: no program in between. */
  readonly isNone: boolean;
  readonly opens: readonly Opens[];
  readonly marksPlacedBy: MarksPlacedBy;
  readonly knowsCutBy: KnowsCutBy;
  readonly canCutAgain: boolean;
  readonly importScale: '96' | '72' | 'asks';
  readonly spotInkName: string;
}

const PLAIN: ProgramDraft = {
  isNone: false,
  opens: ['svg', 'png'],
  marksPlacedBy: 'program',
  knowsCutBy: 'colour',
  canCutAgain: true,
  importScale: '96',
  spotInkName: '',
};

const QUEUE: Partial<ProgramDraft> = { opens: ['pdf'], knowsCutBy: 'spot_ink' };

/** The likeliest answers for a family, as a first guess. */
export function programFor(family: Family): ProgramDraft {
  switch (family) {
    case 'F2':
    case 'F9':
      return { ...PLAIN, ...QUEUE, marksPlacedBy: 'none', canCutAgain: false };
    case 'F3':
    case 'F4':
    case 'F5':
      return { ...PLAIN, ...QUEUE };
    case 'F7':
      return { ...PLAIN, opens: ['png'], knowsCutBy: 'tracing', marksPlacedBy: 'mat', canCutAgain: false };
    case 'F8':
      return { ...PLAIN, isNone: true, marksPlacedBy: 'hand' };
    case 'F1':
    case 'F1c':
    case 'F6':
      return PLAIN;
  }
}

const OPENS_CHOICES = [
  { value: 'svg', title: 'Vector drawings', words: 'SVG, perhaps PDF or DXF too' },
  { value: 'pdf', title: 'PDF', words: 'a print queue or layout program' },
  { value: 'dxf', title: 'DXF and pictures', words: 'lines in one file, the picture in another' },
  { value: 'png', title: 'Pictures only', words: 'it traces the outline itself' },
  { value: 'none', title: 'No program', words: 'my cutter takes a plain cut file' },
] as const;
type OpensChoice = (typeof OPENS_CHOICES)[number]['value'];

const OPENED: Readonly<Record<Exclude<OpensChoice, 'none'>, readonly Opens[]>> = {
  svg: ['svg', 'png'],
  pdf: ['pdf'],
  dxf: ['dxf', 'png'],
  png: ['png'],
};

function opensChoice(draft: ProgramDraft): OpensChoice {
  if (draft.isNone) return 'none';
  return (['svg', 'pdf', 'dxf'] as const).find((kind) => draft.opens.includes(kind)) ?? 'png';
}

const ROUTE_WORDS = {
  A: 'One drawing with print and cut lines.',
  B: 'A picture with closed rings for the program to trace; the rims are read.',
  C: 'A PDF for the queue, its cut lines in your spot ink.',
  D: 'A print file with marks, and plain cut files.',
  E: 'A picture to photograph on the mat; the rims are read.',
} as const;

interface Props {
  readonly draft: ProgramDraft;
  readonly onChange: (draft: ProgramDraft) => void;
}

/** Four taps about the sending program; they decide the files and the steps. */
export function ProgramTaps({ draft, onChange }: Props) {
  const { route, sets } = decideRoute(draft.isNone ? null : draft, 'F1');
  return (
    <>
      <ChoiceCards
        legend="What does your program open?"
        name="opens"
        value={opensChoice(draft)}
        onChange={(value) => {
          if (value === 'none') onChange({ ...draft, isNone: true });
          else
            onChange({
              ...draft,
              isNone: false,
              opens: OPENED[value],
              knowsCutBy: value === 'png' ? 'tracing' : draft.knowsCutBy === 'tracing' ? 'colour' : draft.knowsCutBy,
            });
        }}
        choices={OPENS_CHOICES}
      />
      {!draft.isNone && (
        <>
          <ChoiceCards
            legend="How does it know a cut line?"
            name="knows"
            value={draft.knowsCutBy}
            onChange={(knowsCutBy) => {
              onChange({ ...draft, knowsCutBy });
            }}
            choices={[
              { value: 'colour', title: 'By its colour' },
              { value: 'layer', title: 'By its layer' },
              { value: 'spot_ink', title: 'By a spot ink' },
              { value: 'tracing', title: 'It traces the picture' },
              { value: 'picture_edge', title: 'The picture\u2019s edge' },
            ]}
          />
          {draft.knowsCutBy === 'spot_ink' && (
            <label className="form-label d-block mb-3">
              Name of that spot ink, letter for letter
              <input
                className="form-control"
                style={{ maxWidth: '20rem' }}
                value={draft.spotInkName}
                onChange={(e) => {
                  onChange({ ...draft, spotInkName: e.target.value });
                }}
              />
            </label>
          )}
          <ChoiceCards
            legend="Who places the registration marks?"
            name="placed"
            value={draft.marksPlacedBy}
            onChange={(marksPlacedBy) => {
              onChange({ ...draft, marksPlacedBy });
            }}
            choices={[
              { value: 'program', title: 'The program' },
              { value: 'cutter_panel', title: 'The cutter\u2019s panel' },
              { value: 'hand', title: 'I do, by hand' },
              { value: 'mat', title: 'They are on the mat' },
              { value: 'none', title: 'There are none' },
            ]}
          />
          <ChoiceCards
            legend="Can it cut a second time on the same print?"
            name="again"
            value={draft.canCutAgain ? 'yes' : 'no'}
            onChange={(again) => {
              onChange({ ...draft, canCutAgain: again === 'yes' });
            }}
            choices={[
              { value: 'yes', title: 'Yes' },
              { value: 'no', title: 'No, or I do not know' },
            ]}
          />
        </>
      )}
      <p className="notice">
        {`You will be given: ${ROUTE_WORDS[route].toLowerCase()} ${sets === 2 ? 'Both cuts go on one sheet.' : 'The confirming cut goes on a second sheet.'}`}
      </p>
    </>
  );
}
