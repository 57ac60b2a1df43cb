import type { ComputationName } from '@/compute/computations';

/** What the decoding process is asked for. */
export type DecoderTask =
  | { readonly kind: 'picture-facts'; readonly content: Uint8Array }
  | { readonly kind: 'printable-picture'; readonly content: Uint8Array }
  | { readonly kind: 'compute'; readonly name: ComputationName; readonly raw: unknown };
