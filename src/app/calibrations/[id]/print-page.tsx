import { database } from '@/server/services/database';
import { printInstructions } from '@/server/services/instructions';
import { printedScale } from '@/server/services/simulation';
import { Instructions } from '@/ui/calibration/Instructions';
import { PrintCheck } from '@/ui/calibration/PrintCheck';
import { SheetDrawing } from '@/ui/sheet/SheetDrawing';
import type { StepProps } from './step-props';
import { PageHeading } from '@/ui/components/PageHeading';

/** Marks where they are printed: in a test of what they are used for, away from their places. */
const printedMarks = ({ marks, markMoves }: StepProps['record']) =>
  marks.map((m, i) => ({ x: m.x + (markMoves?.[i]?.x ?? 0), y: m.y + (markMoves?.[i]?.y ?? 0) }));

export async function PrintPage({ record, system }: StepProps) {
  const view = printInstructions(record);
  const { id, setupId } = record.calibration;
  const isAgain = record.sheets.length > 1;
  const scale = record.setupRow.isSimulated ? await printedScale(database(), setupId) : null;
  return (
    <>
      <PageHeading>
        {isAgain
          ? `Print another sheet (number ${record.sheets.length}), at actual size`
          : 'Print the check sheet at actual size'}
      </PageHeading>
      <div className="two">
        <div className="bed stay">
          <SheetDrawing
            marks={{ centres: printedMarks(record), isOurs: record.calibration.route === 'D' }}
            definition={record.definition}
            code={record.code}
            label={`Check sheet ${record.code} as it is printed`}
          />
        </div>
        <div>
          <Instructions
            view={{ ...view, files: view.files.map((f) => ({ ...f, href: `/calibrations/${id}/files/${f.kind}` })) }}
          />
          <PrintCheck
            calibrationId={id}
            nominalMm={record.block.checkLineMm}
            system={system}
            standinMm={scale === null ? null : record.block.checkLineMm * scale}
          />
        </div>
      </div>
    </>
  );
}
