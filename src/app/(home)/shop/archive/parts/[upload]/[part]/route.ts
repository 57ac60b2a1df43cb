import { ArchivePart, PART_BYTES } from '@/contracts/archive';
import { keepPart } from '@/server/services/archive-upload';
import { isLetIn } from '@/server/services/door-guard';
import { plain } from '@/server/services/file-response';
import { takingUpload } from '@/server/services/taking-upload';

interface Context {
  readonly params: Promise<{ upload: string; part: string }>;
}

/** Keeps one part of an archive that a browser sends. */
export const PUT = (request: Request, context: Context): Promise<Response> =>
  takingUpload(request, plain, () => takePart(request, context));

async function takePart(request: Request, { params }: Context): Promise<Response> {
  if (!(await isLetIn())) return plain(401, 'Sign in first.');
  const place = ArchivePart.safeParse(await params);
  if (!place.success) return plain(404, 'There is no such part.');
  const bytes = new Uint8Array(await request.arrayBuffer());
  if (bytes.length > PART_BYTES) return plain(413, 'The part is larger than 8 MB.');
  const announced = Number(request.headers.get('content-length') ?? bytes.length);
  if (announced !== bytes.length) return plain(400, 'The part arrived cut short: send it again.');
  const isKept = await keepPart(place.data.upload, place.data.part, bytes);
  return isKept ? plain(200, 'kept') : plain(409, 'A part before this one has not come.');
}
