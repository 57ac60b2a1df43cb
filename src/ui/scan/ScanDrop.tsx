'use client';

import { useId, useState, type DragEvent } from 'react';

interface Props {
  readonly onFiles: (files: readonly File[]) => void;
  readonly hasScans: boolean;
  /** Loose pieces are measured on a scanner only. */
  readonly takesPhotographs: boolean;
}

/** Where scans are dropped or chosen; also from a phone's own pictures. */
export function ScanDrop({ onFiles, hasScans, takesPhotographs }: Props) {
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
        {hasScans
          ? 'Another one of the same cut'
          : `Drop the scan ${takesPhotographs ? 'or photograph ' : ''}here, or choose it`}
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
        {takesPhotographs
          ? 'PNG, TIFF or JPEG; scans of the whole sheet or overlapping parts, or photographs; any turn. '
          : 'PNG, TIFF or JPEG; all discs in one scan or some in each. '}
        It is measured here in the browser.
      </p>
    </div>
  );
}
