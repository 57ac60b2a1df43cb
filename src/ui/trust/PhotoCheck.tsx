'use client';

import { useState } from 'react';
import type { Point } from '@/core/geometry/affine';
import { PIECE_SHAPES, type PieceReading, type PieceShape, type PieceSought } from '@/core/piece/piece-reading';
import { readBorders } from '@/core/reading/borders';
import { dailyCheckKept } from '@/server/actions/trust';
import { LengthField } from '../components/LengthField';
import { ScanDrop } from '../scan/ScanDrop';
import type { DailyPlace } from './daily-place';
import { KeepBar } from './KeepBar';
import { PiecePicture } from './PiecePicture';
import { StandInPicture } from './StandInPicture';
import { useKeptCheck } from './use-kept-check';
import { useLastPiece, type TypedPiece } from './use-last-piece';
import { usePiecePhoto, type PiecePhoto } from './use-piece-photo';

const SHAPE_WORDS: Readonly<Record<PieceShape, string>> = {
  rectangle: 'four straight sides',
  other: 'round, or another outline',
};

const Steps = () => (
  <ol className="steps">
    <li>
      Machine at a standstill: take a finished piece with print that ends all round, and lay it flat on something dark
      and plain, the way up as it was printed.
    </li>
    <li>
      Hold the camera flat above it; the piece fills most of the picture, with dark ground on every side. Light from all
      sides, no flash.
    </li>
    <li>Say its cut size, and drop the photo.</li>
  </ol>
);

interface PieceFieldsProps {
  readonly piece: TypedPiece;
  readonly system: DailyPlace['system'];
  readonly onChange: (next: Partial<TypedPiece>) => void;
}

/** Shape and cut size of the piece. */
function PieceFields({ piece, system, onChange }: PieceFieldsProps) {
  const initial = (mm: number | null) => (mm === null ? {} : { initialMm: mm });
  return (
    <>
      <h2>The piece</h2>
      <p className="d-flex flex-wrap gap-2">
        {PIECE_SHAPES.map((shape) => (
          <button
            key={shape}
            type="button"
            className={`btn ${shape === piece.shape ? 'btn-primary' : 'btn-quiet'}`}
            aria-pressed={shape === piece.shape}
            onClick={() => {
              onChange({ shape });
            }}
          >
            {SHAPE_WORDS[shape]}
          </button>
        ))}
      </p>
      <div className="d-flex flex-wrap gap-3">
        <LengthField
          label="Cut width"
          system={system}
          {...initial(piece.widthMm)}
          onChange={(widthMm) => {
            onChange({ widthMm });
          }}
        />
        <LengthField
          label="Cut height"
          system={system}
          {...initial(piece.heightMm)}
          onChange={(heightMm) => {
            onChange({ heightMm });
          }}
        />
      </div>
    </>
  );
}

/** How far the photograph is: its progress and a way out, or why it was refused. */
function PhotoState({ photos }: { readonly photos: PiecePhoto }) {
  const { photo, isBusy, forget } = photos;
  if (photo?.refusal)
    return (
      <p className="notice" role="alert">
        <strong>{photo.file.name}</strong>
        {` \u2013 ${photo.refusal}`}
      </p>
    );
  if (!photo || !isBusy) return null;
  return (
    <p aria-live="polite">
      {`${photo.file.name} is measured `}
      <progress
        max={1}
        value={photo.preview ? undefined : photo.share}
        aria-label={`${photo.file.name} is measured`}
      />{' '}
      <button type="button" className="btn btn-quiet" onClick={forget}>
        Cancel
      </button>
    </p>
  );
}

/** What the borders on a photograph say of the cut. */
function shiftOf(reading: PieceReading | null, toleranceMm: number): Point | null {
  if (!reading) return null;
  const { borders, borderSdMm } = reading;
  const read = readBorders(borders, { side: 'outside', nominalMm: null, borderSdMm, toleranceMm });
  return read.ok ? read.value.shift : null;
}

const LEAST_SIDE_MM = 5;

/** The piece once its size is whole; null while it is not. */
const sizedPiece = ({ shape, widthMm, heightMm }: TypedPiece): PieceSought | null =>
  widthMm !== null && heightMm !== null && Math.min(widthMm, heightMm) >= LEAST_SIDE_MM
    ? { shape, widthMm, heightMm }
    : null;

/** One photo of a finished piece: its borders measured in the browser, looked at, kept. */
export function PhotoCheck({ setupId, materialId, toleranceMm, system, isSimulated }: DailyPlace) {
  const { piece, setPiece, remembered, remember } = useLastPiece(setupId);
  // A photo that was chosen before the size was typed.
  const [waiting, setWaiting] = useState<File | null>(null);
  const photos = usePiecePhoto();
  const check = useKeptCheck();
  const { photo } = photos;
  const reading = photo?.reading ?? null;
  const shift = shiftOf(reading, toleranceMm);
  const measure = (file: File, typed: TypedPiece): void => {
    const sought = sizedPiece(typed);
    setWaiting(sought ? null : file);
    if (sought) photos.measure(file, sought);
  };
  const change = (next: Partial<TypedPiece>): void => {
    const changed = { ...piece, ...next };
    setPiece(changed);
    const file = waiting ?? photo?.file;
    if (file && sizedPiece(changed)) measure(file, changed);
  };
  const keep = (): void => {
    if (!reading) return;
    const { borders, borderSdMm } = reading;
    check.keep(
      (id) =>
        dailyCheckKept({ id, setupId, materialId, method: 'photo', side: 'outside', borders, borderSdMm, note: '' }),
      () => {
        remember();
        photos.forget();
      },
    );
  };
  return (
    <section aria-label="One photo of a piece">
      {photo?.preview ? <PiecePicture photo={photo} system={system} /> : <Steps />}
      {(photo ?? check.told) && <KeepBar {...{ check, shift, system }} where="at this piece" onKeep={keep} />}
      <PieceFields key={remembered} piece={piece} system={system} onChange={change} />
      <PhotoState photos={photos} />
      {waiting && (
        <p className="notice" role="alert">
          {`${waiting.name} waits: type the cut width and height of the piece, at least ${LEAST_SIDE_MM} mm each. They tell the size of a pixel.`}
        </p>
      )}
      <ScanDrop
        onFiles={([file]) => {
          if (file) measure(file, piece);
        }}
        first="Drop the photo here, or take it"
        another={photo ? 'Another photo' : null}
        help="JPEG, PNG or TIFF."
      />
      {isSimulated && (
        <StandInPicture
          href={`/setups/${setupId}/daily/picture?of=piece`}
          words="This setup is simulated, and so is its camera: it looks at a label cut to 60 x 40 mm with what the machine makes of its marks now."
          button="Photograph the label"
          isBusy={photos.isBusy}
          onFile={(file) => {
            measure(file, piece);
          }}
        />
      )}
    </section>
  );
}
