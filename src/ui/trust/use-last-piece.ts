'use client';

import { useState, useSyncExternalStore } from 'react';
import { PIECE_SHAPES, type PieceShape } from '@/core/piece/piece-reading';

/** A piece as it is typed. */
export interface TypedPiece {
  readonly shape: PieceShape;
  readonly widthMm: number | null;
  readonly heightMm: number | null;
}

const NO_PIECE: TypedPiece = { shape: 'rectangle', widthMm: null, heightMm: null };
const storeName = (setupId: string): string => `red-plumb daily piece ${setupId}`;

function stored(setupId: string): string | null {
  try {
    return localStorage.getItem(storeName(setupId));
  } catch {
    // A browser that keeps nothing asks again each time.
    return null;
  }
}

function pieceOf(text: string | null): TypedPiece | null {
  try {
    const found = JSON.parse(text ?? 'null') as Partial<TypedPiece> | null;
    const size = (mm: unknown): number | null => (typeof mm === 'number' && mm > 0 ? mm : null);
    const shape = PIECE_SHAPES.find((s) => s === found?.shape);
    return found && shape ? { shape, widthMm: size(found.widthMm), heightMm: size(found.heightMm) } : null;
  } catch {
    return null;
  }
}

const never = () => () => undefined;

export interface LastPiece {
  readonly piece: TypedPiece;
  readonly setPiece: (piece: TypedPiece) => void;
  /** Another one where another piece is remembered: fields begin anew with it. */
  readonly remembered: string;
  readonly remember: () => void;
}

/** The piece that this browser photographed last on a setup: most days it is the same. */
export function useLastPiece(setupId: string): LastPiece {
  const remembered = useSyncExternalStore(
    never,
    () => stored(setupId),
    () => null,
  );
  const [typed, setPiece] = useState<TypedPiece | null>(null);
  const piece = typed ?? pieceOf(remembered) ?? NO_PIECE;
  return {
    ...{ piece, setPiece, remembered: remembered ?? '' },
    remember: () => {
      try {
        localStorage.setItem(storeName(setupId), JSON.stringify(piece));
      } catch {
        // As above.
      }
    },
  };
}
