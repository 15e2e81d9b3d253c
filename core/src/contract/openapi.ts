import { z } from 'zod';
import { Problem } from './basics';
import type { Route } from './route';
import { routes } from './routes';

/** The OpenAPI 3.1 description of every route, made from the contract. */
export function openApi(version: string): Record<string, unknown> {
  const paths: Record<string, Record<string, unknown>> = {};
  for (const [name, route] of Object.entries(routes) as [string, Route][]) {
    const path = `/api${route.path.replace(/:(\w+)/g, '{$1}')}`;
    (paths[path] ??= {})[route.method.toLowerCase()] = operation(name, route);
  }
  return {
    openapi: '3.1.0',
    info: { title: 'Kauri', version, description: 'Raising young trees: places, lots, records, weather.' },
    paths,
    components: {
      schemas: { Problem: schemaOf(Problem, 'output') },
      securitySchemes: { session: { type: 'apiKey', in: 'cookie', name: 'kauri_session' } },
    },
  };
}

function operation(name: string, route: Route): Record<string, unknown> {
  const answerType = route.answerType ?? 'application/json';
  return {
    operationId: name,
    summary: route.summary,
    description: `Needs: ${route.access}.`,
    security: route.access === 'anyone' ? [] : [{ session: [] }],
    parameters: [...parameters(route.params, 'path'), ...parameters(route.query, 'query')],
    ...(route.method === 'GET'
      ? {}
      : {
          requestBody: {
            required: true,
            content: route.bodyType
              ? { [route.bodyType]: { schema: { type: 'string' } } }
              : { 'application/json': { schema: schemaOf(route.body, 'input') } },
          },
        }),
    responses: {
      200: { description: 'Done', content: { [answerType]: { schema: schemaOf(route.answer, 'output') } } },
      default: {
        description: 'What went wrong',
        content: { 'application/problem+json': { schema: { $ref: '#/components/schemas/Problem' } } },
      },
    },
  };
}

function parameters(schema: z.ZodType, place: 'path' | 'query'): unknown[] {
  const json = schemaOf(schema, 'input') as { properties?: Record<string, unknown>; required?: string[] };
  return Object.entries(json.properties ?? {}).map(([name, property]) => ({
    name,
    in: place,
    required: place === 'path' || (json.required ?? []).includes(name),
    schema: property,
  }));
}

function schemaOf(schema: z.ZodType, io: 'input' | 'output'): Record<string, unknown> {
  const { $schema: _, ...json } = z.toJSONSchema(schema, {
    io,
    unrepresentable: 'any',
    target: 'draft-2020-12',
  });
  return json;
}
