import { isComputation } from '@/compute/computations';
import { answerApi, problemOf, type ProblemDetails } from '@/server/services/api';
import { reportRequestFault } from '@/server/services/faults';
import { isLetIn } from '@/server/services/door-guard';
import { openApiDocument } from '@/server/services/openapi';

export const dynamic = 'force-dynamic';

const MOST_BYTES = 64 * 1024 * 1024;

const said = (problem: ProblemDetails): Response =>
  Response.json(problem, {
    status: problem.status,
    headers: { 'content-type': 'application/problem+json', ...(problem.status === 503 && { 'retry-after': '5' }) },
  });

interface Context {
  readonly params: Promise<{ what: string }>;
}

/** The description of everything under /api/v1. */
export async function GET(_request: Request, { params }: Context): Promise<Response> {
  if (!(await isLetIn())) return said(problemOf(401, 'signed-out', 'Sign in first'));
  const { what } = await params;
  if (what !== 'openapi.json') return said(problemOf(404, 'unknown', 'There is nothing of that name'));
  return Response.json(openApiDocument());
}

type Body =
  { readonly ok: true; readonly bytes: Uint8Array } | { readonly ok: false; readonly problem: ProblemDetails };

const tooLarge = (): Body => ({ ok: false, problem: problemOf(413, 'too-large', 'More than 64 MiB') });

/** The bytes of a request, given up as soon as there are too many. Null: too many. */
async function bytesOf(request: Request): Promise<Uint8Array | null> {
  const chunks: Uint8Array[] = [];
  let length = 0;
  for await (const chunk of (request.body ?? []) as AsyncIterable<Uint8Array> | Uint8Array[]) {
    length += chunk.byteLength;
    if (length > MOST_BYTES) return null;
    chunks.push(chunk);
  }
  return Buffer.concat(chunks, length);
}

async function bodyOf(request: Request): Promise<Body> {
  const type = request.headers.get('content-type') ?? '';
  if (!/^application\/json\b/i.test(type))
    return { ok: false, problem: problemOf(415, 'not-json', 'Send the question as application/json') };
  const announced = Number(request.headers.get('content-length') ?? 0);
  if (announced > MOST_BYTES) return tooLarge();
  const body = await bytesOf(request);
  if (!body) return tooLarge();
  if (announced > 0 && body.byteLength !== announced)
    return { ok: false, problem: problemOf(400, 'cut-short', 'Fewer bytes arrived than were announced') };
  return { ok: true, bytes: body };
}

/** Computes one thing: JSON in, JSON out, nothing kept. */
export async function POST(request: Request, { params }: Context): Promise<Response> {
  if (!(await isLetIn())) return said(problemOf(401, 'signed-out', 'Sign in first'));
  const { what } = await params;
  if (!isComputation(what)) return said(problemOf(404, 'unknown', 'There is nothing of that name'));
  const body = await bodyOf(request);
  if (!body.ok) return said(body.problem);
  try {
    const answer = await answerApi(what, body.bytes);
    if (!answer.ok) return said(answer.problem);
    return new Response(new Uint8Array(answer.json), { headers: { 'content-type': 'application/json' } });
  } catch (error) {
    return said(problemOf(500, 'fault', 'Something went wrong on our side', reportRequestFault(error, request)));
  }
}
