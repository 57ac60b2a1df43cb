import 'server-only';
import { z } from 'zod';
import { createDocument, type ZodOpenApiPathsObject } from 'zod-openapi';
import { COMPUTATION_NAMES, COMPUTATIONS } from '@/compute/computations';

const Problem = z
  .object({
    type: z.string(),
    title: z.string(),
    status: z.number().int(),
    detail: z.string().optional(),
    errors: z.array(z.object({ pointer: z.string(), detail: z.string() })).optional(),
  })
  .meta({ id: 'ProblemDetails', description: 'RFC 9457 problem details.' });

const problem = (description: string) => ({
  description,
  content: { 'application/problem+json': { schema: Problem } },
});

function pathsOf(): ZodOpenApiPathsObject {
  return Object.fromEntries(
    COMPUTATION_NAMES.map((name) => {
      const { words, input } = COMPUTATIONS[name];
      const operation = {
        operationId: name,
        summary: words,
        requestBody: { required: true, content: { 'application/json': { schema: input } } },
        responses: {
          '200': { description: words, content: { 'application/json': { schema: z.looseObject({}) } } },
          '400': problem('Not JSON.'),
          '413': problem('More than 64 MiB.'),
          '415': problem('Not sent as application/json.'),
          '422': problem('Understood as JSON, but not as a question; or a question without an answer, by name.'),
        },
      };
      return [`/api/v1/${name}`, { post: operation }];
    }),
  );
}

/** The description of /api/v1 that other software reads: made from the same schemas that check what comes in. */
export function openApiDocument(): object {
  return createDocument({
    openapi: '3.1.0',
    info: {
      title: 'Red Plumb',
      version: '1',
      description:
        'The arithmetic of print-to-cut alignment: mm, radians, plain ratios; x to the right and y along the printed arrow, about the middle of the work area.',
    },
    paths: pathsOf(),
  });
}
