/** Where a scan's pictures go as they came. */
export interface OriginalsPlace {
  readonly calibrationId: string;
  readonly scanId: string;
}

const LOST = 'the shop\u2019s server does not answer';

async function refusalOf(response: Response): Promise<string> {
  try {
    const { message } = (await response.json()) as { readonly message?: string };
    return message ?? LOST;
  } catch {
    return LOST;
  }
}

/** Sends files one after another. @returns why one was not kept; null when all are. */
export async function sendOriginals(
  { calibrationId, scanId }: OriginalsPlace,
  files: readonly File[],
  onSent: (count: number) => void,
): Promise<string | null> {
  for (const [no, file] of files.entries()) {
    const href = `/calibrations/${calibrationId}/scans/${scanId}/originals/${no}?name=${encodeURIComponent(file.name)}`;
    try {
      const response = await fetch(href, { method: 'PUT', body: file });
      if (!response.ok) return `${file.name}: ${await refusalOf(response)}`;
    } catch {
      return `${file.name}: ${LOST}`;
    }
    onSent(no + 1);
  }
  return null;
}
