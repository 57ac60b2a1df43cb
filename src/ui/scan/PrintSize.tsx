'use client';

import type { ScanResult } from '@/core/scan/scan-result';
import { printShape, type PrintShape } from '@/core/scan/print-size';
import { formatSize, type UnitSystem } from '@/core/units/length';
import { LengthField } from '../components/LengthField';
import { InstrumentChoice } from '../measure/InstrumentChoice';
import { lengthEnds, placesAsked, sizeAsked, type AskedLength, type LengthEnd, type SizeAsked } from './asked-length';
import { scaleWords, shapeAdvice, shapeRows, sizeWords } from './print-size-words';
import type { ScanView } from './scan-view';

interface Props {
  readonly view: ScanView;
  readonly scans: readonly ScanResult[];
  readonly asked: AskedLength;
  readonly onAsk: (asked: AskedLength) => void;
}

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
  readonly ends: readonly LengthEnd[];
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

function SizeWords({ size, system }: { readonly size: SizeAsked; readonly system: UnitSystem }) {
  if (!size) return null;
  if (size.ok) return <p role="status">{`${scaleWords(size.value)} ${sizeWords(size.value, system)}`}</p>;
  return (
    <p className="notice" role="alert">
      {`That is far from the ${formatSize(size.error.nominalMm, system)} drawn between these two discs: are they the right ones, and is the unit right?`}
    </p>
  );
}

/** How true the print itself is: its shape from the scans, its size from one length on it. */
export function PrintSize({ view, scans, asked, onAsk }: Props) {
  const { figures, system } = view;
  const ends = lengthEnds(view);
  const shape = printShape(scans, figures);
  if (!shape || ends.length < 2) return null;
  const change = (part: Partial<AskedLength>): void => {
    onAsk({ ...asked, ...part });
  };
  const places = placesAsked(ends, asked);
  const drawnMm = places && Math.hypot(places.from.x - places.to.x, places.from.y - places.to.y);
  return (
    <details className="mb-3">
      <summary>How true is the print itself?</summary>
      <ShapeTable shape={shape} system={system} />
      <p className="quiet">{shapeAdvice(shape)}</p>
      <p>
        A picture does not know how large it is. Measure one length on the print, by caliper or steel rule, between two
        discs of this cut: from an edge of one to the same edge of the other (left to left, or bottom to bottom), the
        farther apart the better.
      </p>
      <InstrumentChoice
        sdMm={asked.sdMm}
        system={system}
        onChange={(sdMm) => {
          change({ sdMm });
        }}
      />
      <div className="d-flex flex-wrap gap-3">
        <EndChoice
          label="From"
          ends={ends}
          chosen={asked.from}
          onChoose={(from) => {
            change({ from });
          }}
        />
        <EndChoice
          label="To"
          ends={ends}
          chosen={asked.to}
          onChoose={(to) => {
            change({ to });
          }}
        />
        <LengthField
          label="Length on the print"
          system={system}
          isOptional
          hint={drawnMm === null ? 'choose two spots' : `drawn as ${formatSize(drawnMm, system)}`}
          onChange={(lengthMm) => {
            change({ lengthMm });
          }}
        />
      </div>
      <SizeWords size={sizeAsked(shape, ends, asked)} system={system} />
    </details>
  );
}
