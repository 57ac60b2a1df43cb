'use client';

import { useId, useState } from 'react';

interface Props {
  readonly href: string;
  readonly isBusy: boolean;
  readonly onScan: (file: File) => void;
}

/** The stand-in scanner of a simulated roll: lays pieces on the glass, from a station on as many as have room. */
export function StandInPieces({ href, isBusy, onScan }: Props) {
  const id = useId();
  const [firstNo, setFirstNo] = useState('1');
  const [turn, setTurn] = useState('0');
  const [notice, setNotice] = useState<string | null>(null);
  const [isScanning, setScanning] = useState(false);
  const scan = async (): Promise<void> => {
    setScanning(true);
    setNotice(null);
    try {
      const answer = await fetch(`${href}?first=${encodeURIComponent(firstNo)}&turn=${turn}`);
      if (!answer.ok) setNotice(await answer.text());
      else onScan(new File([await answer.blob()], `pieces-from-${firstNo}-turned-${turn}.png`, { type: 'image/png' }));
    } catch {
      setNotice('The stand-in scanner does not answer. Try again in a moment.');
    }
    setScanning(false);
  };
  return (
    <fieldset className="bed">
      <legend className="h2">Stand-in scanner</legend>
      <p className="quiet">This setup is simulated: pieces of the strip that it cut are laid on a stand-in’s glass.</p>
      <div className="d-flex gap-3 flex-wrap align-items-end">
        <div>
          <label htmlFor={`${id}-first`} className="form-label">
            From station
          </label>
          <input
            id={`${id}-first`}
            type="number"
            min={1}
            className="form-control"
            value={firstNo}
            onChange={(e) => {
              setFirstNo(e.target.value);
            }}
          />
        </div>
        <div>
          <label htmlFor={`${id}-turn`} className="form-label">
            Pieces turned by
          </label>
          <select
            id={`${id}-turn`}
            className="form-select"
            value={turn}
            onChange={(e) => {
              setTurn(e.target.value);
            }}
          >
            <option value="0">0°</option>
            <option value="180">180°</option>
          </select>
        </div>
        <button type="button" className="btn btn-quiet" disabled={isBusy || isScanning} onClick={() => void scan()}>
          {isScanning ? 'Scanning \u2026' : 'Scan them'}
        </button>
      </div>
      {notice && (
        <p className="notice" role="alert">
          {notice}
        </p>
      )}
    </fieldset>
  );
}
