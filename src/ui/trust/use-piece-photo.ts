'use client';

import { useEffect, useRef, useState } from 'react';
import type { PieceReading, PieceSought } from '@/core/piece/piece-reading';
import { pieceWorker, type PicturePreview, type PieceTold, type PieceWorker } from '@/workers/piece.client';

import { pieceFailureWords } from './piece-words';

/** A photograph on its way from the file to its borders. */
export interface PiecePhotoState {
  readonly file: File;
  readonly stage: 'reading' | 'measuring' | 'measured' | 'refused';
  readonly share: number;
  readonly preview: (PicturePreview & { readonly href: string }) | null;
  readonly reading: PieceReading | null;
  readonly refusal: string | null;
}

export interface PiecePhoto {
  readonly photo: PiecePhotoState | null;
  readonly isBusy: boolean;
  readonly measure: (file: File, sought: PieceSought) => void;
  readonly forget: () => void;
}

const LOST = 'The browser could not measure it. Take it again, or measure by hand.';

/** One photograph at a time, measured in a worker. Nothing leaves the browser. */
export function usePiecePhoto(): PiecePhoto {
  const [photo, setPhoto] = useState<PiecePhotoState | null>(null);
  const worker = useRef<PieceWorker | null>(null);
  const href = useRef<string | null>(null);
  /** Answers to an older photograph are dropped. */
  const round = useRef(0);
  const forget = (): void => {
    round.current += 1;
    worker.current?.cancel();
    if (href.current !== null) URL.revokeObjectURL(href.current);
    href.current = null;
    setPhoto(null);
  };
  useEffect(
    () => () => {
      worker.current?.cancel();
      if (href.current !== null) URL.revokeObjectURL(href.current);
    },
    [],
  );
  const measure = (file: File, sought: PieceSought): void => {
    forget();
    const own = round.current;
    const change = (next: Partial<PiecePhotoState>): void => {
      if (round.current === own) setPhoto((now) => now && { ...now, ...next });
    };
    setPhoto({ file, stage: 'reading', share: 0, preview: null, reading: null, refusal: null });
    const tell = (told: PieceTold): void => {
      if (round.current !== own) return;
      if (told.stage === 'reading') change({ share: told.share });
      else {
        href.current = URL.createObjectURL(told.preview.blob);
        change({ preview: { ...told.preview, href: href.current } });
      }
    };
    worker.current ??= pieceWorker();
    worker.current
      .measure(file, sought, tell)
      .then((done) => {
        change(
          done.ok
            ? { stage: 'measured', reading: done.value }
            : { stage: 'refused', refusal: pieceFailureWords(done.error) },
        );
      })
      .catch(() => {
        change({ stage: 'refused', refusal: LOST });
      });
  };
  return { photo, isBusy: photo?.stage === 'reading', measure, forget };
}
