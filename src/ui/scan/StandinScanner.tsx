'use client';

import { useId, useState } from 'react';
import type { StandinScanner as Standin } from './scan-view';

interface Props {
  readonly standin: Standin;
  readonly isBusy: boolean;
  readonly onScan: (file: File) => void;
}

const TURNS = [0, 90, 180, 270] as const;
const DOTS_PER_INCH = [150, 300, 600] as const;

/** The stand-in scanner of a simulated setup: lays the cut sheet down as asked and hands over the picture. */
export function StandinScanner({ standin, isBusy, onScan }: Props) {
  const id = useId();
  const [turn, setTurn] = useState<number>(0);
  const [dpi, setDpi] = useState<number>(300);
  const [condition, setCondition] = useState('clean');
  const [device, setDevice] = useState('scanner');
  const isCamera = device === 'camera';
  const [state, setState] = useState<'ready' | 'scanning' | 'failed'>('ready');
  const scan = async (): Promise<void> => {
    setState('scanning');
    try {
      const asked = `sheet=${standin.sheetNo}&turn=${turn}&dpi=${dpi}&condition=${condition}&device=${device}&face=${standin.face}`;
      const answer = await fetch(`${standin.href}?${asked}`);
      if (!answer.ok) throw new Error(answer.statusText);
      const blob = await answer.blob();
      const name = `stand-in-${isCamera ? 'photo' : 'scan'}-turned-${turn}.${isCamera ? 'jpg' : 'png'}`;
      onScan(new File([blob], name, { type: blob.type }));
      setState('ready');
    } catch {
      setState('failed');
    }
  };
  const select = (
    what: string,
    value: string | number,
    options: readonly (readonly [string | number, string])[],
    set: (value: string) => void,
  ) => (
    <div>
      <label htmlFor={`${id}-${what}`} className="form-label">
        {what}
      </label>
      <select
        id={`${id}-${what}`}
        className="form-select"
        value={value}
        onChange={(event) => {
          set(event.target.value);
        }}
      >
        {options.map(([key, words]) => (
          <option key={key} value={key}>
            {words}
          </option>
        ))}
      </select>
    </div>
  );
  return (
    <fieldset className="bed">
      <legend className="h2">Stand-in scanner and camera</legend>
      <p className="quiet">
        This setup is simulated, and so are its scanner and camera: they take the sheet that was printed and cut.
      </p>
      <div className="d-flex gap-3 flex-wrap align-items-end">
        {select(
          'Taken by',
          device,
          [
            ['scanner', 'flatbed scanner'],
            ['camera', 'camera, held by hand'],
          ],
          setDevice,
        )}
        {select(
          'Sheet turned by',
          turn,
          TURNS.map((t) => [t, `${t}\u00b0`]),
          (v) => {
            setTurn(Number(v));
          },
        )}
        {!isCamera &&
          select(
            'Dots an inch',
            dpi,
            DOTS_PER_INCH.map((d) => [d, String(d)]),
            (v) => {
              setDpi(Number(v));
            },
          )}
        {select(
          'Sheet',
          condition,
          [
            ['clean', 'clean'],
            ['worn', 'dusty, torn, one cut left closed'],
          ],
          setCondition,
        )}
        <button
          type="button"
          className="btn btn-quiet"
          disabled={isBusy || state === 'scanning'}
          onClick={() => void scan()}
        >
          {state === 'scanning' ? 'Scanning \u2026' : 'Scan it'}
        </button>
      </div>
      {state === 'failed' && (
        <p className="notice" role="alert">
          The stand-in scanner gave no picture. Cut the sheet first, or try again.
        </p>
      )}
    </fieldset>
  );
}
