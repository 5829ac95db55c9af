import { z } from 'zod';
import { OPERATIONS, type Operation } from './operations';
import { problemSchema } from './schemas';

type Json = Record<string, unknown>;
const schemaOf = (schema: z.ZodType, io: 'input' | 'output'): Json => {
  const { $schema: _, ...rest } = z.toJSONSchema(schema, { io, unrepresentable: 'any' }) as Json;
  return rest;
};

/** The OpenAPI 3.1 document, made from the same table that the server answers by. */
export function openApiDocument(serverUrl: string): Json {
  const paths: Record<string, Json> = {};
  for (const [operationId, operation] of Object.entries(OPERATIONS) as [string, Operation][]) {
    paths[operation.path] = { ...paths[operation.path], [operation.method.toLowerCase()]: describe(operationId, operation) };
  }
  return {
    openapi: '3.1.0',
    info: {
      title: 'Millrace',
      version: '1',
      description: 'Lists in, flows, trips, reviews and messages. Times are UTC; money is in millionths of a euro.',
    },
    servers: [{ url: `${serverUrl}/api/v1` }],
    security: [{ token: [] }],
    components: { securitySchemes: { token: { type: 'http', scheme: 'bearer' } }, schemas: { Problem: schemaOf(problemSchema, 'output') } },
    paths,
  };
}

function describe(operationId: string, operation: Operation): Json {
  const inPath = [...operation.path.matchAll(/\{(\w+)\}/g)].map(([, name]) => ({
    name,
    in: 'path',
    required: true,
    schema: { type: 'string' },
  }));
  const query = operation.query ? (schemaOf(operation.query, 'input') as { properties?: Record<string, Json>; required?: string[] }) : {};
  const inQuery = Object.entries(query.properties ?? {}).map(([name, schema]) => ({
    name,
    in: 'query',
    required: query.required?.includes(name) ?? false,
    schema,
  }));
  const problem = {
    description: 'Why it was refused',
    content: { 'application/problem+json': { schema: { $ref: '#/components/schemas/Problem' } } },
  };
  return {
    operationId,
    summary: operation.summary,
    'x-needs': operation.needs,
    parameters: [...inPath, ...inQuery],
    ...(operation.takesFile
      ? { requestBody: { required: true, content: { [operation.takesFile]: { schema: { type: 'string', format: 'binary' } } } } }
      : {}),
    ...(operation.body
      ? { requestBody: { required: true, content: { 'application/json': { schema: schemaOf(operation.body, 'input') } } } }
      : {}),
    responses: {
      [String(operation.status ?? 200)]: {
        description: 'Done',
        content: Object.fromEntries(
          (operation.givesFile ?? ['application/json']).map((type) => [type, { schema: schemaOf(operation.answer, 'input') }]),
        ),
      },
      400: problem,
      401: problem,
      403: problem,
      404: problem,
      409: problem,
    },
  };
}
