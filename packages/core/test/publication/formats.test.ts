import { describe, expect, test } from '@jest/globals';
import { validate as validate30 } from '@hyperjump/json-schema/openapi-3-0';
import { validate as validate31 } from '@hyperjump/json-schema/openapi-3-1';
import type { Json } from '@hyperjump/json-pointer';
import { arrangementOf, completeModel, readChoices, type Arrangement } from '@isomeros/core/arrangement';
import { readContract } from '@isomeros/core/contract';
import { derive } from '@isomeros/core/derivation';
import { publicationSource } from '@isomeros/core/engine';
import type { Model } from '@isomeros/core/model';
import {
  openApiDocument,
  PUBLICATION_FORMATS,
  PUBLICATION_NAMES,
  publish,
  type PublicationName,
  type PublicationSource,
} from '@isomeros/core/publication';
import fc from 'fast-check';
import ts from 'typescript';
import { parse } from 'yaml';
import { MAIN } from '../support/arrangement.js';
import { anyArrangement } from '../support/arrangements.js';
import { modelOf } from '../support/models.js';
import { rounds } from '../support/rounds.js';
import { kestrelChoices, kestrelText, toolShedText } from '../support/samples.js';
import { exactAjv, resolved } from '../support/schemas.js';

const sourceOf = (model: Model, arrangement: Arrangement = MAIN): PublicationSource =>
  publicationSource(derive(model, arrangement), model, arrangement.examples);

const kestrel = (): PublicationSource => {
  const { value: choices } = readChoices(kestrelChoices, '');
  return sourceOf(completeModel(modelOf(kestrelText), choices), arrangementOf('main', choices));
};

/** The same source once more: what it is written from is worked out once for each. */
const AGAIN = kestrel();
const ONCE = kestrel();

const SAMPLES: readonly (readonly [string, () => PublicationSource])[] = [
  ['Kestrel Sound Ferries', kestrel],
  ['the tool shed', () => sourceOf(modelOf(toolShedText))],
];

const text = (source: PublicationSource, name: PublicationName): string =>
  publish(source, name, { mock: null });
const json = (source: PublicationSource, name: PublicationName): Json =>
  JSON.parse(text(source, name)) as Json;

/** Bodies of media types that may have examples, with their schema. */
interface Content {
  readonly schema?: object;
  readonly examples?: Readonly<Record<string, { readonly value: unknown }>>;
}

/** How many examples a document has, and what is wrong with them by its own schemas. */
function examplesOf(source: PublicationSource): {
  readonly count: number;
  readonly wrong: readonly string[];
} {
  const document = openApiDocument(source.contract, { examples: source.examples() });
  const ajv = exactAjv();
  ajv.addSchema({ $id: 'doc', components: document['components'] });
  const wrong: string[] = [];
  let count = 0;
  const visit = (part: unknown, at: string): void => {
    if (typeof part !== 'object' || part === null) return;
    const { schema, examples } = part as Content;
    if (schema !== undefined && examples !== undefined) {
      const said = JSON.parse(
        JSON.stringify(schema).replaceAll('"#/components', '"doc#/components'),
      ) as object;
      const check = ajv.compile(said);
      for (const [name, { value }] of Object.entries(examples)) {
        count++;
        if (!check(value)) wrong.push(`${at} ${name}: ${ajv.errorsText(check.errors)}`);
      }
    }
    for (const [key, value] of Object.entries(part))
      if (key !== 'schema' && key !== 'examples') visit(value, `${at}/${key}`);
  };
  visit((resolved(document, document) as { paths: unknown }).paths, '');
  return { count, wrong };
}

async function expectSound(source: PublicationSource): Promise<void> {
  const official31 = await validate31(
    'https://spec.openapis.org/oas/3.1/schema-base',
    json(source, 'openapi-3.1.json'),
    'BASIC',
  );
  expect(official31.valid ? [] : official31.errors).toEqual([]);
  const official30 = await validate30(
    'https://spec.openapis.org/oas/3.0/schema',
    json(source, 'openapi-3.0.json'),
    'BASIC',
  );
  expect(official30.valid ? [] : official30.errors).toEqual([]);
  const ajv = exactAjv();
  const bundle = json(source, 'json-schema.json') as object;
  expect([ajv.validateSchema(bundle), ajv.errors]).toEqual([true, null]);
  ajv.compile(bundle);
  expect(examplesOf(source).wrong).toEqual([]);
}

/** What the compiler says of some declarations, all in one program. */
function typeErrors(files: ReadonlyMap<string, string>): readonly string[] {
  const options: ts.CompilerOptions = {
    strict: true,
    noEmit: true,
    skipLibCheck: false,
    target: ts.ScriptTarget.ES2022,
    lib: ['lib.es2022.d.ts'],
    module: ts.ModuleKind.ESNext,
    types: [],
  };
  const host = ts.createCompilerHost(options);
  const own: ts.CompilerHost = {
    ...host,
    getSourceFile: (name, ...rest) => {
      const text = files.get(name);
      return text === undefined
        ? host.getSourceFile(name, ...rest)
        : ts.createSourceFile(name, text, ts.ScriptTarget.ES2022);
    },
    fileExists: (name) => files.has(name) || host.fileExists(name),
    readFile: (name) => files.get(name) ?? host.readFile(name),
  };
  const program = ts.createProgram([...files.keys()], options, own);
  return ts.getPreEmitDiagnostics(program).map(({ messageText, file, start }) => {
    const line = file?.text.slice(start ?? 0, (start ?? 0) + 80) ?? '';
    return `${ts.flattenDiagnosticMessageText(messageText, ' ')} at ${line}`;
  });
}

/** Names and texts that end something somewhere. */
const HOSTILE = [
  "'; touch X; '",
  '$(touch X)',
  '*/ export const x = 1; /*',
  '</script><script>alert(1)</script>',
  '-- ; DROP TABLE x; --',
  'a | b',
  '`touch X`',
  'two\\nlines',
  'no',
  '\u2028',
].join(' ');

const HOSTILE_TEXT = `design "Traps ${HOSTILE.replaceAll('\\n', ' ')}" "${HOSTILE}"

entity Record "${HOSTILE}"
  name: text(1..200), required, example "${HOSTILE}" "${HOSTILE}"
  kind: choice("it's", "${HOSTILE.replaceAll('\\n', ' ')}"), default "it's"
  schema: text(..20), pattern "[*]/|</script>|'|\\"|\`"
  no: boolean

entity Date
  error: text

entity Error
  examples: list of text
  parameters: integer

each Record owns many Date as dates, back as record
each Error refers to optional Record as record, back as errors
`;

const hostile = (): PublicationSource => sourceOf(modelOf(HOSTILE_TEXT));

describe('published documents', () => {
  test.each(SAMPLES)(
    'of %s fit the official schemas, and their examples those of the document',
    async (_name, source) => {
      await expectSound(source());
    },
  );

  test('of any design do, whatever is said of it', async () => {
    await fc.assert(
      fc.asyncProperty(anyArrangement, async ({ model, arrangement }) => {
        await expectSound(sourceOf(model, arrangement));
      }),
      rounds(20),
    );
  });

  test('of texts that could end something do, too', async () => {
    await expectSound(hostile());
    for (const name of PUBLICATION_NAMES) expect(text(hostile(), name)).not.toBe('');
  });

  test('declare types that compile, whatever entities are called', () => {
    const drawn = fc.sample(anyArrangement, rounds(20));
    const all = [
      ...SAMPLES.map(([, source]) => source()),
      hostile(),
      ...drawn.map(({ model, arrangement }) => sourceOf(model, arrangement)),
    ];
    const files = new Map(all.map((source, at) => [`/types${at}.d.ts`, text(source, 'types.d.ts')]));
    expect(typeErrors(files)).toEqual([]);
    expect(typeErrors(new Map([['/wrong.d.ts', 'export interface A { a: Missing }']]))).toHaveLength(1);
  });

  test.each(PUBLICATION_NAMES)('%s is the same whenever it is written', (name) => {
    expect(text(ONCE, name)).toBe(text(AGAIN, name));
    expect(PUBLICATION_FORMATS[name].cannotSay(ONCE)).toEqual(PUBLICATION_FORMATS[name].cannotSay(AGAIN));
  });

  test.each(['openapi-3.1', 'openapi-3.0'] as const)('%s is the same in both languages', (version) => {
    expect(parse(text(kestrel(), `${version}.yaml`))).toEqual(json(kestrel(), `${version}.json`));
    expect(parse(text(hostile(), `${version}.yaml`))).toEqual(json(hostile(), `${version}.json`));
  });

  test('show most operations of the sample at work', () => {
    expect(examplesOf(kestrel()).count).toBeGreaterThan(80);
  });

  test('the contract is read back', () => {
    const source = kestrel();
    expect(readContract(text(source, 'contract.json'))).toEqual(JSON.parse(JSON.stringify(source.contract)));
  });

  test('name the address of a mock where it is asked for', () => {
    const named = publish(kestrel(), 'openapi-3.0.json', { mock: 'http://127.0.0.1:4811/api/v1' });
    expect((JSON.parse(named) as { servers: unknown }).servers).toContainEqual({
      url: 'http://127.0.0.1:4811/api/v1',
      description: 'A mock',
    });
  });
});

describe('the size of a document', () => {
  const sizeOf = (source: PublicationSource): number =>
    JSON.stringify(openApiDocument(source.contract)).length;

  test('of the sample is under 200 kB without examples and what is said', () => {
    const { value: choices } = readChoices(kestrelChoices, '');
    const bare = arrangementOf('main', choices);
    const model = completeModel(modelOf(kestrelText), choices);
    expect(sizeOf(sourceOf(model, { ...bare, documentation: {} }))).toBeLessThan(200_000);
  });

  test('grows as the operations do', () => {
    const things = (count: number): PublicationSource =>
      sourceOf(
        modelOf(
          Array.from({ length: count }, (_, at) => `entity Thing${at}\n  name: text(1..60), required\n`).join(
            '\n',
          ),
        ),
      );
    const [few, many] = [sizeOf(things(20)), sizeOf(things(80))];
    expect(many / few).toBeLessThan(4.2);
  });
});
