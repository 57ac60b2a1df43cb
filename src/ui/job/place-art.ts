import { v4 as uuid } from 'uuid';

const MOST_BYTES = 64 * 1024 * 1024;

/** Art as the shop's own server keeps it with a job. */
export interface PlacedArt {
  readonly id: string;
  readonly kind: 'drawing' | 'picture';
  readonly widthPx: number;
  readonly heightPx: number;
}

/** Sends art to the shop's own server. @returns what is kept, or why it was not taken. */
export async function placeArt(jobId: string, file: File): Promise<PlacedArt | string> {
  if (file.size > MOST_BYTES) return 'It is larger than 64 MB.';
  try {
    const response = await fetch(`/jobs/${jobId}/art/${uuid()}?name=${encodeURIComponent(file.name)}`, {
      method: 'PUT',
      body: file,
    });
    const answer = (await response.json()) as PlacedArt | { readonly message: string };
    return 'message' in answer ? answer.message : answer;
  } catch {
    return 'The shop\u2019s server does not answer: place it again in a moment.';
  }
}
