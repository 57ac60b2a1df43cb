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

/** What lamination or backing did to a sheet: the same lengths before and after. */
export function BeforeAndAfter({ view }: { readonly view: MeasureToolView }) {
  const [before, setBefore] = useState<Lengths>({});
  const [after, setAfter] = useState<Lengths>({});
  const [sdMm, setSdMm] = useState(CALIPER_SD_MM);
  const { frame, page, system } = view;
  const fit = fitMeasured(changeOn(before, after, frame, sdMm), cornersOf(frame.widthMm, frame.lengthMm));
  return (
    <div className="two">
      <div className="bed stay">
        <MeasuredPicture
          page={page}
          frame={frame}
          map={fit.ok ? fit.value.map : null}
          label="The frame before, thin, and after, solid"
        />
      </div>
      <div>
        <p>
          Measure the same lengths of the printed frame before the film goes on and after: at least one width, one
          length or one diagonal; both diagonals tell a skew.
        </p>
        <InstrumentChoice sdMm={sdMm} system={system} onChange={setSdMm} />
        <LengthColumns
          ids={DISTANCE_IDS}
          system={system}
          columns={[
            { name: 'before', lengths: before, onChange: setBefore },
            { name: 'after', lengths: after, onChange: setAfter },
          ]}
        />
        <RuleResult fit={fit} frame={frame} system={system} title="The film made it" />
        {fit.ok && (
          <p className="notice">
            A cutter that uses all its marks takes a stretch out by itself. Where it does not, check on laminated
            sheets: the map then holds what the film does. Solvent prints gas out before lamination.
          </p>
        )}
      </div>
    </div>
  );
}
