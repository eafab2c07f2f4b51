/** Writes the published JSON Schemas from the schemas that check. */
import { mkdirSync, writeFileSync } from 'node:fs';
import { packSchema } from '@/core/pack/schema';
import { jsonSchema } from '@/core/grammar/one-of';
import { eventSchema } from '@/core/run/events';
import { scenarioSchema } from '@/core/yard/scenario';
import { recordFileSchema } from '@/wire/record-file';

export const schemas = (): Record<string, string> =>
  Object.fromEntries(
    Object.entries({
      'rule-pack': packSchema,
      'run-event': eventSchema,
      'record-file': recordFileSchema,
      scenario: scenarioSchema,
    }).map(([name, schema]) => [
      `docs/schema/${name}.json`,
      JSON.stringify(
        { $schema: 'https://json-schema.org/draft/2020-12/schema', title: name, ...jsonSchema(schema) },
        null,
        2,
      ) + '\n',
    ]),
  );
if (process.argv[1]?.endsWith('schemas.ts')) {
  mkdirSync('docs/schema', { recursive: true });
  for (const [file, text] of Object.entries(schemas())) writeFileSync(file, text);
}
