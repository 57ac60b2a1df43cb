/** Lines of the answer while some long work goes on; the last one tells how it ended. */
export type Progress =
  | { readonly kind: 'progress'; readonly words: string; readonly done: number; readonly of: number }
  | { readonly kind: 'refused'; readonly message: string };

/** Adding the demo shop: how far it is, and that it is there. */
export type DemoProgress = Progress | { readonly kind: 'added' };
