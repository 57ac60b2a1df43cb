import 'server-only';

/** Who does it. Every write names one. */
export interface Actor {
  readonly personId: string;
}

/** A refusal in words for the one at the machine: field, value, what is expected. */
export interface Refusal {
  readonly kind: 'refused';
  readonly message: string;
}

export const refusal = (message: string): Refusal => ({ kind: 'refused', message });
