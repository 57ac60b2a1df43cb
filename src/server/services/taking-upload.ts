import 'server-only';
import { uploadRefusal } from './disk';
import { faultKind, reportRequestFault } from './faults';

const STATUS = { 'database-stopped': 503, 'disk-full': 507, fault: 500 } as const;

/**
 * Takes a file in: refused in words while the disk is nearly full, and a database or disk that gives way meanwhile is said in
 * words too. @param answer how this route says something to whoever sent the file
 */
export async function takingUpload(
  request: Request,
  answer: (status: number, message: string) => Response,
  take: () => Promise<Response>,
): Promise<Response> {
  try {
    const refusal = await uploadRefusal();
    return refusal === null ? await take() : answer(507, refusal);
  } catch (error) {
    return answer(STATUS[faultKind(error)], reportRequestFault(error, request));
  }
}
