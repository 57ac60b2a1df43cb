'use client';

import { useState } from 'react';
import { cornersOf } from '@/core/geometry/affine';
import { fitMeasured, RULE_SD_MM } from '@/core/registration/rule-fit';
import { DISTANCE_IDS, MARGIN_IDS, measuredOn } from '@/core/registration/sheet-lengths';
import { formatSize } from '@/core/units/length';
import { LengthField } from '../components/LengthField';
import { InstrumentChoice } from './InstrumentChoice';
import { LengthTable, type Lengths } from './LengthTable';
import { MeasuredPicture } from './MeasuredPicture';
import type { MeasureToolView } from './measure-view';
import { RuleResult } from './RuleResult';
import { ruleParts } from './rule-words';

const FIRST = [...MARGIN_IDS, 'diagonal-up', 'diagonal-down'] as const;
const MORE = DISTANCE_IDS.filter((id) => !id.startsWith('diagonal'));

/** Does the print match the page? Margins and diagonals by rule, before anything is cut. */
export function PrintAgainstPage({ view }: { readonly view: MeasureToolView }) {
  const [frame, setFrame] = useState(view.frame);
  const [lengths, setLengths] = useState<Lengths>({});
  const [sdMm, setSdMm] = useState(RULE_SD_MM);
  const { page, system } = view;
  const fit = fitMeasured(measuredOn(lengths, { frame, page }, sdMm), cornersOf(frame.widthMm, frame.lengthMm));
  const parts = fit.ok ? ruleParts(fit.value, frame, system) : [];
  const isOff = (...names: readonly string[]): boolean => parts.some((p) => names.includes(p.name) && p.isClear);
  return (
    <div className="two">
      <div className="bed stay">
        <MeasuredPicture
          page={page}
          frame={frame}
          map={fit.ok ? fit.value.map : null}
          label="The page with the printed frame where it should be and where it was measured"
        />
      </div>
      <div>
        <p>
          {`The frame of a check sheet should measure ${formatSize(frame.widthMm, system)} by ${formatSize(frame.lengthMm, system)}, in the middle of the page. Any other frame or outermost marks will do: say its size.`}
        </p>
        <details>
          <summary>Another frame</summary>
          <div className="d-flex flex-wrap gap-3">
            <LengthField
              label="Its width"
              system={system}
              initialMm={frame.widthMm}
              onChange={(mm) => {
                if (mm !== null && mm > 10) setFrame({ ...frame, widthMm: mm });
              }}
            />
            <LengthField
              label="Its length"
              system={system}
              initialMm={frame.lengthMm}
              onChange={(mm) => {
                if (mm !== null && mm > 10) setFrame({ ...frame, lengthMm: mm });
              }}
            />
          </div>
        </details>
        <InstrumentChoice sdMm={sdMm} system={system} onChange={setSdMm} />
        <LengthTable ids={FIRST} system={system} lengths={lengths} onChange={setLengths} />
        <details className="mb-3">
          <summary>Widths and lengths too</summary>
          <LengthTable ids={MORE} system={system} lengths={lengths} onChange={setLengths} />
        </details>
        <RuleResult fit={fit} frame={frame} system={system} title="The print lies" />
        {isOff('width', 'length') && (
          <p className="notice">
            It is not at its true size. Print at actual size (no &ldquo;fit to page&rdquo;), with the page in the
            program the page in the tray; then print again: marks scaled with the picture are read in the wrong places.
          </p>
        )}
        {isOff('across', 'along', 'turned') && (
          <p className="notice">
            It is not in the middle of its page. A cutter that reads marks follows it; see that every mark is whole and
            no nearer to the edge than your machine allows. One that goes by the edge of the sheet will be off by as
            much: register by hand, or print again.
          </p>
        )}
      </div>
    </div>
  );
}
