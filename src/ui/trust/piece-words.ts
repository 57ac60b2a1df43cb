import type { PieceSide } from '@/core/piece/piece-reading';
import type { PieceFailure } from '@/workers/piece.client';

const at = (side: PieceSide | null): string => (side ? `at the ${side}` : 'along most of its outline');

/** Why a photograph could not be measured, and what to do. */
export function pieceFailureWords(failure: PieceFailure): string {
  if ('words' in failure) return failure.words;
  switch (failure.kind) {
    case 'no-contrast':
      return 'The ground under the piece is as light as its border. Lay it on something dark and plain, and take it again.';
    case 'no-piece':
      return 'No light piece was found on dark ground, whole and with a border all round. Lay one piece on something dark and plain; where its border is gone on a side, measure the others by hand and type 0 there.';
    case 'reaches-rim':
      return 'The piece runs out of the picture. Take it again with dark ground on all four sides.';
    case 'too-coarse':
      return `It is seen with only ${failure.pixelsPerMm.toFixed(1)} pixels a mm: at least 6 are needed. Go nearer, or photograph with more pixels.`;
    case 'no-rectangle':
      return 'It does not have four straight, light sides. Is it another shape, or is a side hidden, bent up, or without a border?';
    case 'other-size':
      return failure.isOnItsSide
        ? 'It lies on its side: turn it as it was printed, or swap width and height.'
        : `Seen, it is ${failure.seenRatio.toFixed(2)} times as wide as high; typed, ${failure.toldRatio.toFixed(2)} times. Is the cut size right, and is the camera held flat above it?`;
    case 'no-print-edge':
      return `No clear edge of the print was found ${at(failure.side)}: it is too faint, or the print has no edge there. Measure this piece by hand.`;
    case 'uneven':
      return `The border changes ${at(failure.side)} by more than a shifted cut makes it: the print has no edge there that follows the cut. Measure this piece by hand, or take another.`;
  }
}
