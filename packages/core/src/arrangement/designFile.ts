import { identitiesOf, isJsonObject, readJson, type Identities, type Json } from '../model/index.js';
import { parse } from '../notation/index.js';
import { CHOOSABLE, DESIGN_ONLY, readSettings, type SettingDomain } from './check.js';
import { NO_CHOICES, type Choices } from './choices.js';
import type { SettingValues } from './settings.js';

/** A whole design as one file carries it. */
export interface DesignFile {
  readonly name: string;
  /** The last text of the model without errors. */
  readonly model: string;
  /** The text as it was left, where that has errors. */
  readonly draft?: string;
  readonly identities: Identities;
  readonly choices: Choices;
  readonly arrangements: readonly { readonly name: string }[];
}

export interface DesignFileProblem {
  /** A JSON pointer (RFC 6901) to what does not fit. */
  readonly pointer: string;
  readonly code: string;
  readonly message: string;
}

export type DesignFileResult =
  | { readonly ok: true; readonly design: DesignFile }
  | { readonly ok: false; readonly problems: readonly DesignFileProblem[] };

const FORMAT = 'isomeros-design';
const VERSION = 1;
const NAME_LENGTH = 120;

const name = { type: 'string', minLength: 1, maxLength: NAME_LENGTH } as const;

/** The schema of settings as they can be chosen at a level. */
const settingsSchema = (isDesign: boolean): object => ({
  type: 'object',
  properties: Object.fromEntries(
    Object.entries(CHOOSABLE)
      .filter(([setting]) => isDesign || !DESIGN_ONLY.has(setting))
      .map(([setting, domain]) => [setting, schemaOf(domain)]),
  ),
  additionalProperties: false,
});

function schemaOf(domain: SettingDomain): object {
  switch (domain.kind) {
    case 'options':
      return { enum: domain.options };
    case 'integer':
      return { type: 'integer', minimum: domain.min, maximum: domain.max };
    case 'text':
      return { type: 'string', pattern: domain.pattern.source };
  }
}

/** The published schema (JSON Schema 2020-12) of design files. */
export const DESIGN_FILE_SCHEMA = {
  $schema: 'https://json-schema.org/draft/2020-12/schema',
  $id: 'urn:isomeros:design-file:1',
  title: 'Isomeros design file',
  description: 'A model in its notation, with the identities of its elements and what was decided about it.',
  type: 'object',
  required: ['format', 'version', 'name', 'model', 'arrangements'],
  properties: {
    $schema: { type: 'string' },
    format: { const: FORMAT },
    version: { const: VERSION },
    name,
    model: { type: 'string', description: 'The text of the model (text/vnd.isomeros.model).' },
    draft: { type: 'string', description: 'The text as it was left, where that has errors.' },
    identities: {
      type: 'object',
      description: 'From the address of an element in the model to its identity, which outlives its name.',
      additionalProperties: { type: 'string', minLength: 1 },
    },
    choices: {
      type: 'object',
      properties: {
        settings: settingsSchema(true),
        arrangements: { type: 'object', additionalProperties: settingsSchema(false) },
        answered: { type: 'array', items: { type: 'string' } },
      },
      additionalProperties: false,
    },
    arrangements: {
      type: 'array',
      minItems: 1,
      items: { type: 'object', required: ['name'], properties: { name }, additionalProperties: false },
    },
  },
  additionalProperties: false,
} as const;

/** The text of a design file: JSON, indented by two spaces, members in the order of the schema. */
export function writeDesignFile(design: DesignFile): string {
  const file = { $schema: DESIGN_FILE_SCHEMA.$id, format: FORMAT, version: VERSION, ...design };
  return `${JSON.stringify(file, null, 2)}\n`;
}

/** Reads a design file; everything wrong with it is reported at once. */
export function readDesignFile(text: string): DesignFileResult {
  const read = readJson(text);
  if (!read.ok) {
    const { code, message, line, column } = read.problem;
    return failed([{ pointer: '', code, message: `${message} Line ${line}, column ${column}.` }]);
  }
  const { value } = read;
  if (!isJsonObject(value)) return failed([problem('', 'type', 'Expected a JSON object.')]);
  const problems = [...Object.keys(value).flatMap(unknownMember), ...headProblems(value)];
  const choices = readChoices(value['choices']);
  const identities = readIdentities(value['identities']);
  const arrangements = readArrangements(value['arrangements']);
  problems.push(...choices.problems, ...identities.problems, ...arrangements.problems);
  if (problems.length > 0) return failed(problems);
  const model = value['model'] as string;
  return {
    ok: true,
    design: {
      name: value['name'] as string,
      model,
      ...(typeof value['draft'] === 'string' ? { draft: value['draft'] } : {}),
      identities: knownIdentities(model, identities.value),
      choices: choices.value,
      arrangements: arrangements.value,
    },
  };
}

const failed = (problems: readonly DesignFileProblem[]): DesignFileResult => ({ ok: false, problems });

const problem = (pointer: string, code: string, message: string): DesignFileProblem => ({
  pointer,
  code,
  message,
});

function unknownMember(member: string): DesignFileProblem[] {
  if (Object.hasOwn(DESIGN_FILE_SCHEMA.properties, member)) return [];
  return [problem(`/${escaped(member)}`, 'unknown', `A design file has no member ${member}.`)];
}

const escaped = (member: string): string => member.replaceAll('~', '~0').replaceAll('/', '~1');

function headProblems(file: { readonly [name: string]: Json }): DesignFileProblem[] {
  const problems: DesignFileProblem[] = [];
  if (file['format'] !== FORMAT) problems.push(problem('/format', 'const', `Expected "${FORMAT}".`));
  if (file['version'] !== VERSION) problems.push(problem('/version', 'const', `Expected ${VERSION}.`));
  if (!isName(file['name']))
    problems.push(problem('/name', 'length', `Expected a text of 1 to ${NAME_LENGTH} characters.`));
  if (typeof file['model'] !== 'string')
    problems.push(problem('/model', 'type', 'Expected the text of the model.'));
  for (const member of ['$schema', 'draft'])
    if (file[member] !== undefined && typeof file[member] !== 'string')
      problems.push(problem(`/${member}`, 'type', 'Expected a text.'));
  return problems;
}

const isName = (value: Json | undefined): boolean =>
  typeof value === 'string' && value.length > 0 && [...value].length <= NAME_LENGTH;

interface Part<T> {
  readonly value: T;
  readonly problems: readonly DesignFileProblem[];
}

function readChoices(given: Json | undefined): Part<Choices> {
  if (given === undefined) return { value: NO_CHOICES, problems: [] };
  if (!isJsonObject(given))
    return { value: NO_CHOICES, problems: [problem('/choices', 'type', 'Expected an object.')] };
  const { settings: chosen = {}, arrangements: byName = {}, answered = [], ...others } = given;
  const problems = Object.keys(others).map((member) =>
    problem(`/choices/${escaped(member)}`, 'unknown', `Choices have no member ${member}.`),
  );
  const isListOfTexts = Array.isArray(answered) && answered.every((id) => typeof id === 'string');
  if (!isListOfTexts) problems.push(problem('/choices/answered', 'type', 'Expected an array of texts.'));
  const design = readLevel(chosen, '/choices/settings', 'design');
  const own: Record<string, SettingValues> = {};
  if (!isJsonObject(byName)) problems.push(problem('/choices/arrangements', 'type', 'Expected an object.'));
  for (const [arrangement, values] of isJsonObject(byName) ? Object.entries(byName) : []) {
    const level = readLevel(values, `/choices/arrangements/${escaped(arrangement)}`, 'arrangement');
    own[arrangement] = level.value;
    problems.push(...level.problems);
  }
  return {
    value: { settings: design.value, arrangements: own, answered: isListOfTexts ? answered : [] },
    problems: [...problems, ...design.problems],
  };
}

function readLevel(given: Json, pointer: string, level: 'design' | 'arrangement'): Part<SettingValues> {
  if (!isJsonObject(given)) return { value: {}, problems: [problem(pointer, 'type', 'Expected an object.')] };
  const read = readSettings(given, level);
  if (read.ok) return { value: read.values, problems: [] };
  return {
    value: {},
    problems: read.problems.map(({ name: setting, code, message }) =>
      problem(`${pointer}/${escaped(setting)}`, code, message),
    ),
  };
}

function readIdentities(given: Json | undefined): Part<Identities> {
  if (given === undefined) return { value: {}, problems: [] };
  if (!isJsonObject(given))
    return { value: {}, problems: [problem('/identities', 'type', 'Expected an object.')] };
  const problems = Object.entries(given).flatMap(([address, id]) =>
    typeof id === 'string' && id !== ''
      ? []
      : [problem(`/identities/${escaped(address)}`, 'type', 'Expected a text that is not empty.')],
  );
  return { value: problems.length === 0 ? (given as Identities) : {}, problems };
}

/** The identities of what the model has; two elements never share one. */
function knownIdentities(text: string, given: Identities): Identities {
  const taken = new Set<string>();
  const known: Record<string, string> = {};
  for (const address of identitiesOf(parse(text).model).keys()) {
    const wanted = Object.hasOwn(given, address) ? (given[address] ?? address) : address;
    if (taken.has(wanted)) continue;
    taken.add(wanted);
    known[address] = wanted;
  }
  return known;
}

function readArrangements(given: Json | undefined): Part<DesignFile['arrangements']> {
  if (!Array.isArray(given) || given.length === 0)
    return {
      value: [],
      problems: [problem('/arrangements', 'type', 'Expected an array of at least one arrangement.')],
    };
  const names = new Set<string>();
  const problems = (given as readonly Json[]).flatMap((item, index) => {
    const pointer = `/arrangements/${index}`;
    if (!isJsonObject(item) || !isName(item['name']) || Object.keys(item).length !== 1)
      return [problem(pointer, 'type', 'Expected an object with a name.')];
    const wanted = item['name'] as string;
    if (names.has(wanted)) return [problem(pointer, 'duplicate', `There are two arrangements ${wanted}.`)];
    names.add(wanted);
    return [];
  });
  return { value: [...names].map((wanted) => ({ name: wanted })), problems };
}
