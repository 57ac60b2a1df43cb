'use client';

import { useId, useState, type DragEvent } from 'react';

interface Props {
  readonly onFiles: (files: readonly File[]) => void;
  /** What is asked for, and what kinds of pictures are taken. */
  readonly first: string;
  readonly help: string;
  /** Asked instead once there are scans. */
  readonly another: string | null;
}

/** Where scans are dropped or chosen; also from a phone's own pictures. */
export function ScanDrop({ onFiles, first, help, another }: Props) {
  const id = useId();
  const [isOver, setOver] = useState(false);
  const drop = (event: DragEvent): void => {
    event.preventDefault();
    setOver(false);
    onFiles([...event.dataTransfer.files]);
  };
  return (
    <div
      className={`scan-drop${isOver ? ' over' : ''}`}
      onDragOver={(event) => {
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => {
        setOver(false);
      }}
      onDrop={drop}
    >
      <label htmlFor={id} className="form-label">
        {another ?? first}
      </label>
      <input
        id={id}
        type="file"
        className="form-control"
        multiple
        accept="image/png,image/jpeg,image/tiff,.tif,.tiff"
        aria-describedby={`${id}-help`}
        onChange={(event) => {
          onFiles([...(event.target.files ?? [])]);
          event.target.value = '';
        }}
      />
      <p id={`${id}-help`} className="quiet mt-2 mb-0">
        {`${help} It is measured here in the browser.`}
      </p>
    </div>
  );
}
