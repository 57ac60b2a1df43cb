'use client';

import { useState } from 'react';
import type { KeptPrintSize } from '@/contracts/print-size';
import { CALIPER_SD_MM } from '@/core/registration/rule-fit';
import type { ScanFigure, ScanResult } from '@/core/scan/measure-scan';
import { farthestApart, printScale, printShape, type PrintShape } from '@/core/scan/print-size';
import { formatLength, type UnitSystem } from '@/core/units/length';
import { LengthField } from '../components/LengthField';
import { InstrumentChoice } from '../measure/InstrumentChoice';
import { scaleWords, shapeAdvice, shapeRows, sizeWords } from './print-size-words';
import type { OwnDisc } from './scan-view';

interface Props {
  readonly own: readonly OwnDisc[];
  readonly figures: readonly ScanFigure[];
  readonly scans: readonly ScanResult[];
  readonly system: UnitSystem;
  readonly onSize: (size: KeptPrintSize | null) => void;
}

interface End {
  readonly spotNo: number;
  readonly centre: ScanFigure['centre'];
}

const endsOf = (own: readonly OwnDisc[], figures: readonly ScanFigure[]): readonly End[] =>
  own.flatMap(({ key, spotNo }) => {
    const figure = figures.find((f) => f.key === key);
    return figure ? [{ spotNo, centre: figure.centre }] : [];
  });

function ShapeTable({ shape, system }: { readonly shape: PrintShape; readonly system: UnitSystem }) {
  return (
    <table className="table" aria-label="Shape of the print and of the scanner">
      <thead>
        <tr>
          <th scope="col">By the scans alone</th>
          <th scope="col">Found</th>
          <th scope="col">Give or take</th>
        </tr>
      </thead>
      <tbody>
        {shapeRows(shape, system).map(({ name, found, doubt }) => (
          <tr key={name}>
            <th scope="row">{name}</th>
            <td className="figures">{found}</td>
            <td className="figures">{doubt}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

interface EndChoiceProps {
  readonly label: string;
  readonly ends: readonly End[];
  readonly chosen: number;
  readonly onChoose: (spotNo: number) => void;
}

function EndChoice({ label, ends, chosen, onChoose }: EndChoiceProps) {
  return (
    <label className="d-block mb-2">
      {label}
      <select
        className="form-select"
        value={chosen}
        onChange={(e) => {
          onChoose(Number(e.target.value));
        }}
      >
        {ends.map(({ spotNo }) => (
          <option key={spotNo} value={spotNo}>
            {`spot ${spotNo}`}
          </option>
        ))}
      </select>
    </label>
  );
}

/** How true the print itself is: its shape from the scans, its size from one length on it. */
export function PrintSize({ own, figures, scans, system, onSize }: Props) {
  const ends = endsOf(own, figures);
  const [first, last] = farthestApart(ends) ?? [];
  const [from, setFrom] = useState(first?.spotNo ?? 0);
  const [to, setTo] = useState(last?.spotNo ?? 0);
  const [sdMm, setSdMm] = useState(CALIPER_SD_MM);
  const [lengthMm, setLengthMm] = useState<number | null>(null);
  const shape = printShape(scans, figures);
  if (!shape || ends.length < 2) return null;
  const [a, b] = [ends.find((e) => e.spotNo === from), ends.find((e) => e.spotNo === to)];
  const scaleFor = (mm: number | null, sd: number, start = a, end = b) =>
    mm !== null && start && end && start !== end
      ? printScale(shape, { from: start.centre, to: end.centre, lengthMm: mm, standardUncertaintyMm: sd })
      : null;
  const tell = (mm: number | null, sd: number, start = a, end = b): void => {
    const scale = scaleFor(mm, sd, start, end);
    if (mm === null || !scale?.ok || !start || !end) onSize(null);
    else
      onSize({
        ...{ fromSpotNo: start.spotNo, toSpotNo: end.spotNo, lengthMm: mm, lengthSdMm: sd },
        ...{ acrossScale: scale.value.across.value, acrossSd: scale.value.across.sd },
        ...{ alongScale: scale.value.along.value, alongSd: scale.value.along.sd },
      });
  };
  const scale = scaleFor(lengthMm, sdMm);
  const nominalMm = a && b ? Math.hypot(a.centre.x - b.centre.x, a.centre.y - b.centre.y) : 0;
  return (
    <details className="mb-3">
      <summary>How true is the print itself?</summary>
      <ShapeTable shape={shape} system={system} />
      <p className="quiet">{shapeAdvice(shape)}</p>
      <p>
        A picture does not know how large it is. Measure one length on the print, by caliper or steel rule: from the
        left edge of one disc of this cut to the left edge of another, the farther apart the better.
      </p>
      <InstrumentChoice
        sdMm={sdMm}
        system={system}
        onChange={(sd) => {
          setSdMm(sd);
          tell(lengthMm, sd);
        }}
      />
      <div className="d-flex flex-wrap gap-3">
        <EndChoice
          label="From"
          ends={ends}
          chosen={from}
          onChoose={(spotNo) => {
            setFrom(spotNo);
            tell(
              lengthMm,
              sdMm,
              ends.find((e) => e.spotNo === spotNo),
              b,
            );
          }}
        />
        <EndChoice
          label="To"
          ends={ends}
          chosen={to}
          onChoose={(spotNo) => {
            setTo(spotNo);
            tell(
              lengthMm,
              sdMm,
              a,
              ends.find((e) => e.spotNo === spotNo),
            );
          }}
        />
        <LengthField
          label="Length on the print"
          system={system}
          isOptional
          hint={`drawn as ${formatLength(nominalMm, system)}`}
          onChange={(mm) => {
            setLengthMm(mm);
            tell(mm, sdMm);
          }}
        />
      </div>
      {scale && !scale.ok && (
        <p className="notice" role="alert">
          {`That is far from the ${formatLength(scale.error.nominalMm, system)} drawn between these two discs: are they the right ones, and is the unit right?`}
        </p>
      )}
      {scale?.ok && (
        <p role="status">
          {scaleWords(scale.value)} {sizeWords(scale.value, system)}
        </p>
      )}
    </details>
  );
}
