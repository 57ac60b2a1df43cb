import { z } from 'zod';
import { TURNS } from '@/core/geometry/load';
import { database } from '@/server/services/database';
import { isLetIn } from '@/server/services/door-guard';
import { loadRecord } from '@/server/services/record';
import { DEVICES, SCANNER_DPI, SHEET_CONDITIONS, standinScan } from '@/server/services/scans';

const oneOf = (values: readonly number[]) => z.coerce.number().refine((n) => values.includes(n));
const Asked = z.object({
  sheet: z.coerce.number().int().min(1).max(99),
  turn: oneOf(TURNS),
  dpi: oneOf(SCANNER_DPI),
  condition: z.enum(SHEET_CONDITIONS),
  device: z.enum(DEVICES).default('scanner'),
  face: z.enum(['front', 'back']).default('front'),
});

/** What the stand-in scanner or camera makes of a simulated setup's cut sheet: a gray PNG, or a JPEG. */
export async function GET(request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  if (!(await isLetIn())) return Response.json({ message: 'Sign in first.' }, { status: 401 });
  const { id } = await params;
  const asked = Asked.safeParse(Object.fromEntries(new URL(request.url).searchParams));
  if (!asked.success || !z.uuid().safeParse(id).success)
    return Response.json({ message: 'There is no such sheet, turn or resolution.' }, { status: 400 });
  const record = await loadRecord(database(), id);
  if (!record) return Response.json({ message: 'This calibration is not there any more.' }, { status: 404 });
  const { sheet, turn, dpi, condition, device, face } = asked.data;
  const turnDeg = TURNS.find((t) => t === turn) ?? 0;
  const dotsPerInch = SCANNER_DPI.find((d) => d === dpi) ?? 300;
  const scan = await standinScan(database(), record, sheet, { turnDeg, dotsPerInch, condition, device, face });
  if (!scan.ok) return Response.json({ message: scan.error.message }, { status: 404 });
  return new Response(new Uint8Array(scan.value), {
    headers: { 'content-type': device === 'camera' ? 'image/jpeg' : 'image/png', 'cache-control': 'no-store' },
  });
}
