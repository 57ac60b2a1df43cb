'use client';

import { useEffect, useRef, useState } from 'react';
import type { CutFileToolView } from './cut-file-view';
import { formatLength, type UnitSystem } from '@/core/units/length';
import type { Survey } from '@/workers/cut-file.client';
import { LengthField } from '../components/LengthField';
import { CutFilePicture } from './CutFilePicture';
import { farthestMm, wholeBox } from './cut-file-move';
import { GroupRoles } from './GroupRoles';
import { HowMuch } from './HowMuch';
import { MadeFile } from './MadeFile';
import { UnitChoice } from './UnitChoice';
import { useCorrection, type Chosen } from './use-correction';
import { useCutFile, type Units } from './use-cut-file';

/** A cut file of the shop's own, its cut lines moved by what this setup needs. The file stays in the browser. */
export function CutFileTool({ view }: { readonly view: CutFileToolView }) {
  const job = useCutFile();
  const [units, setUnits] = useState<Units>({ pxPerInch: 96, mmPerUnit: 1 });
  const { state } = job;
  const survey = 'survey' in state ? state.survey : null;
  const input = useRef<HTMLInputElement>(null);
  const isAwake = useRef(false);
  // A file that was chosen while the page was still waking is not lost.
  useEffect(() => {
    if (isAwake.current) return;
    isAwake.current = true;
    const file = input.current?.files?.[0];
    if (file) job.open(file, units);
  });
  return (
    <>
      <p>
        <label htmlFor="cut-file" className="form-label d-block">
          SVG, DXF or HPGL, up to 64 MB. It is read in this browser and goes nowhere.
        </label>
        <input
          id="cut-file"
          ref={input}
          type="file"
          className="form-control"
          style={{ maxWidth: '30rem' }}
          accept=".svg,.dxf,.plt,.hpgl,.hpg,image/svg+xml"
          onChange={(e) => {
            const file = e.target.files?.[0];
            if (file) job.open(file, units);
          }}
        />
      </p>
      <p role="status">{state.kind === 'reading' ? `Reading ${state.name} ...` : null}</p>
      {state.kind === 'reading' && (
        <button
          type="button"
          className="btn btn-quiet"
          onClick={() => {
            if (input.current) input.current.value = '';
            job.cancel();
          }}
        >
          Cancel
        </button>
      )}
      {state.kind === 'refused' && (
        <p role="alert" className="notice">
          {`${state.name} was not taken. ${state.problem.words} (${state.problem.where})`}
        </p>
      )}
      {survey && (
        <Correction
          key={`${'name' in state ? state.name : ''} ${survey.format} ${survey.groups.length}`}
          view={view}
          survey={survey}
          job={job}
          units={units}
          onUnits={(next) => {
            setUnits(next);
            job.reopen(next);
          }}
        />
      )}
    </>
  );
}

interface CorrectionProps {
  readonly view: CutFileToolView;
  readonly survey: Survey;
  readonly job: ReturnType<typeof useCutFile>;
  readonly units: Units;
  readonly onUnits: (units: Units) => void;
}

/** What the move comes to on this page, in words. */
function moveWords({ move, movesPrint }: Chosen, survey: Survey, system: UnitSystem): string {
  if (!move) return 'One of the figures above is no number yet.';
  const far = formatLength(farthestMm(move, wholeBox(survey)), system);
  return `${movesPrint ? 'The print' : 'The cut'} moves by up to ${far} on this page.`;
}

function Correction({ view, survey, job, units, onUnits }: CorrectionProps) {
  const chosen = useCorrection(view, survey, job.outdated);
  const { by, roles, move, moving, names, centre, movesPrint } = chosen;
  const make =
    move &&
    (() => {
      job.make({ by, names, move }, units);
    });
  return (
    <div className="two">
      <div className="bed stay">
        <CutFilePicture
          survey={survey}
          by={by}
          roles={roles}
          moving={moving}
          move={move?.affine ?? null}
          centre={centre}
        />
      </div>
      <div>
        {survey.remarks.map((r) => (
          <p key={r.words} className="notice">
            {r.words}
          </p>
        ))}
        <UnitChoice survey={survey} units={units} onUnits={onUnits} />
        <GroupRoles
          groups={survey.groups}
          by={by}
          hasLayers={survey.groups.filter((g) => g.by === 'layer').length > 1}
          roles={roles}
          system={view.system}
          onBy={chosen.setBy}
          onRole={chosen.setRole}
        />
        <HowMuch view={view} chosen={chosen} />
        <CentreChoice chosen={chosen} system={view.system} />
        <label className="choice">
          <input
            type="checkbox"
            checked={movesPrint}
            onChange={(e) => {
              chosen.setMovesPrint(e.target.checked);
            }}
          />
          <span>
            Move the print instead
            <span className="quiet d-block">
              For a program that traces its own lines: trace the picture as it is, print the moved one.
            </span>
          </span>
        </label>
        <MadeFile
          job={job}
          words={moveWords(chosen, survey, view.system)}
          emptyWords={movesPrint ? 'Say above which lines are art.' : 'Say above which lines are to be cut.'}
          isEmpty={names.length === 0}
          onMake={make}
        />
      </div>
    </div>
  );
}

function aboutWords({ source, hasMarks }: Chosen): string {
  if (source === 'roll') return 'leading edge';
  return hasMarks ? 'marks' : 'page';
}

/** The place that the correction was measured about, where the guess is not right. */
function CentreChoice({ chosen, system }: { readonly chosen: Chosen; readonly system: UnitSystem }) {
  const { centre } = chosen;
  const words = `Measured about the middle of the ${aboutWords(chosen)}: ${formatLength(centre.x, system)} from the left, ${formatLength(centre.y, system)} from below`;
  return (
    <details className="my-2">
      <summary>{words}</summary>
      <div className="d-flex flex-wrap gap-3">
        <LengthField
          label="From the left"
          system={system}
          initialMm={centre.x}
          onChange={(x) => {
            if (x !== null) chosen.setCentre({ ...centre, x });
          }}
        />
        <LengthField
          label="From below"
          system={system}
          initialMm={centre.y}
          onChange={(y) => {
            if (y !== null) chosen.setCentre({ ...centre, y });
          }}
        />
      </div>
    </details>
  );
}
