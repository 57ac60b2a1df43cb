'use client';

import { useState } from 'react';
import { cornersOf } from '@/core/geometry/affine';
import { CALIPER_SD_MM, fitMeasured } from '@/core/registration/rule-fit';
import { changeOn, DISTANCE_IDS } from '@/core/registration/sheet-lengths';
import { InstrumentChoice } from './InstrumentChoice';
import { LengthColumns, type Lengths } from './LengthTable';
import { MeasuredPicture } from './MeasuredPicture';
import type { MeasureToolView } from './measure-view';
import { RuleResult } from './RuleResult';

/** Two states of a sheet whose lengths are compared. */
const COMPARED = {
  film: {
    columns: ['before', 'after'],
    picture: 'The frame before, thin, and after, solid',
    words:
      'Measure the same lengths of the printed frame before the film goes on and after: at least one width, one length or one diagonal; both diagonals tell a skew.',
    title: 'The film made it',
    note: 'A cutter that uses all its marks takes a stretch out by itself. Where it does not, check on laminated sheets: the map then holds what the film does. Solvent prints gas out before lamination.',
  },
  cut: {
    columns: ['print', 'cut'],
    picture: 'The print, thin, and the cut, solid',
    words:
      'Measure between the same two points twice, once on the print and once on the cut: between the same sides of two corner discs of a check sheet, printed discs first, then their holes. A width and a length tell the scales; both diagonals tell the squareness.',
    title: 'Against the print, the cut is',
    note: 'Two points tell how large and how square the cut is, not where it lies nor how it is turned: for that, read the figures.',
  },
} as const;

interface Props {
  readonly view: MeasureToolView;
  readonly what: keyof typeof COMPARED;
}

/** What lamination did to a sheet, or how the cut stands to the print: the same lengths measured twice. */
export function BeforeAndAfter({ view, what }: Props) {
  const [before, setBefore] = useState<Lengths>({});
  const [after, setAfter] = useState<Lengths>({});
  const [sdMm, setSdMm] = useState(CALIPER_SD_MM);
  const words = COMPARED[what];
  const { frame, page, system } = view;
  const fit = fitMeasured(changeOn(before, after, frame, sdMm), cornersOf(frame.widthMm, frame.lengthMm));
  return (
    <div className="two">
      <div className="bed stay">
        <MeasuredPicture page={page} frame={frame} map={fit.ok ? fit.value.map : null} label={words.picture} />
      </div>
      <div>
        <p>{words.words}</p>
        <InstrumentChoice sdMm={sdMm} system={system} onChange={setSdMm} />
        <LengthColumns
          ids={DISTANCE_IDS}
          system={system}
          columns={[
            { name: words.columns[0], lengths: before, onChange: setBefore },
            { name: words.columns[1], lengths: after, onChange: setAfter },
          ]}
        />
        <RuleResult fit={fit} frame={frame} system={system} title={words.title} />
        {fit.ok && <p className="notice">{words.note}</p>}
      </div>
    </div>
  );
}
