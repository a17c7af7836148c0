import {
  arrangementOf,
  completeModel,
  FILTER_OPERATORS,
  CHOOSABLE_NAMES,
  LEAVABLE,
  hasLevel,
  rowOf,
  LINK_PLACES,
  NO_CHOICES,
  operationKey,
  plainArrangement,
  PLACEMENTS,
  subjectsOf,
  type Arrangement,
  type ChoiceLevel,
  type ChoosableRow,
  type ExposureChoice,
  type Exposures,
  type LinkChoice,
  type Placements,
  type SettingsById,
  type SettingValue,
  type SettingValues,
} from '@isomeros/core/arrangement';
import { derive } from '@isomeros/core/derivation';
import { type Declaration, type Entity, type Model } from '@isomeros/core/model';
import fc from 'fast-check';
import { anyCustomOperations } from './customOperations.js';
import { anyDocumentation, drawnDocumentation } from './documentation.js';
import { anyOwnLinks, drawnLinks } from './ownLinks.js';
import { anyModel, modelOf } from './models.js';
import { kestrelText } from './samples.js';

/** Texts that fit the patterns of settings; any other setting is drawn from its domain. */
const TEXTS: Readonly<Record<string, readonly string[]>> = {
  basePath: ['', '/api', '/a/b'],
  version: ['v1', '2026-06'],
  keyHeader: ['X-API-Key', 'Key'],
  moreHeader: ['More-Items', 'X-More'],
  totalHeader: ['Total-Count', 'X-Total'],
  role: ['admin', 'keeper'],
  relationBase: ['', 'https://api.example/relations/'],
  itemsMember: ['items', 'data', 'page'],
  pageMember: ['page', 'pageInfo'],
  linksMember: ['links', 'goTo', 'name'],
  recordMember: ['data', 'links', 'name'],
  termsUrl: ['', 'https://docs.example/terms?a=1'],
  licenseUrl: ['', 'https://docs.example/'],
  statusUrl: ['', 'http://up.example'],
  recordConstants: ['', '{"ok": true, "v": 1}', '{"data":null,"links":"x"}'],
  ...Object.fromEntries(
    [
      'page',
      'size',
      'offset',
      'limit',
      'cursor',
      'sort',
      'search',
      'fields',
      'expand',
      'filter',
      'order',
    ].map((name) => [`${name}Parameter`, [name, `${name}By`, 'name']]),
  ),
  operationName: ['', 'findIt', 'listRoutes'],
  ...Object.fromEntries(
    ['list', 'read', 'create', 'replace', 'change', 'remove'].map((verb) => [`${verb}Word`, [verb, 'work']]),
  ),
  defaultSort: ['id', '-name', 'nothing'],
};

function anyValue(name: string, domain: ChoosableRow): fc.Arbitrary<SettingValue> {
  // Where most is left out, little is left to be tested.
  if (name === 'leftOut') return fc.oneof({ weight: 3, arbitrary: fc.constant([]) }, fewOf(LEAVABLE));
  switch (domain.kind) {
    case 'options':
      return fc.constantFrom(...domain.options);
    case 'integer':
      return fc.integer({ min: domain.min, max: domain.max });
    case 'text':
      return fc.constantFrom(...textsFor(name));
    case 'list': {
      const items = domain.items instanceof RegExp ? textsFor(name) : domain.items;
      return fc.shuffledSubarray([...items], { minLength: domain.min });
    }
  }
}

const fewOf = (items: readonly string[]): fc.Arbitrary<string[]> => fc.subarray([...items], { maxLength: 3 });

function textsFor(name: string): readonly string[] {
  const texts = TEXTS[name];
  if (texts === undefined) throw new Error(`No texts are known for ${name}.`);
  return texts;
}

/** Any settings that can be chosen at a level. */
export const anySettings = (level: ChoiceLevel): fc.Arbitrary<SettingValues> =>
  fc.record(
    Object.fromEntries(
      CHOOSABLE_NAMES.filter((name) => hasLevel(name, level) && name !== 'implicitId').map((name) => [
        name,
        anyValue(name, rowOf(name)),
      ]),
    ),
    { requiredKeys: [] },
  );

/** Any places for what a model has, one in three left as it is. */
export const anyPlacements = (model: Model): fc.Arbitrary<Placements> =>
  fc
    .tuple(
      ...subjectsOf(model).map(({ id, kind }) =>
        fc.option(fc.constantFrom(...PLACEMENTS[kind]), { freq: 2 }).map((place) => [id, place] as const),
      ),
    )
    .map((chosen) => Object.fromEntries(chosen.filter(([, place]) => place !== null)) as Placements);

/** Words for a few of the things a path names; some of them collide. */
export const anyWords = (model: Model): fc.Arbitrary<Readonly<Record<string, string>>> =>
  fc
    .tuple(
      ...[...subjectsOf(model), ...model.declarations.map(({ id }) => ({ id: `${id}/plural` }))].map(
        ({ id }) =>
          fc
            .option(fc.constantFrom('one', 'two-words', 'Three', '~4'), { freq: 1 })
            .map((word) => [id, word] as const),
      ),
    )
    .map(
      (chosen) =>
        Object.fromEntries(chosen.filter(([, word]) => word !== null)) as Readonly<Record<string, string>>,
    );

const anyChoice: fc.Arbitrary<ExposureChoice> = fc.record(
  {
    out: fc.constantFrom('yes', 'no'),
    list: fc.constantFrom('yes', 'no'),
    create: fc.constantFrom('must', 'may', 'no'),
    replace: fc.constantFrom('must', 'may', 'no'),
    change: fc.constantFrom('may', 'no'),
    filter: fc.subarray([...FILTER_OPERATORS]),
    sort: fc.constantFrom('yes', 'no'),
    search: fc.constantFrom('yes', 'no'),
    name: fc.constantFrom(
      'a',
      'b',
      'id',
      'name',
      'otherName',
      '_odd-name',
      'links',
      'filter',
      'b__gte',
      '__proto__',
    ),
  },
  { requiredKeys: [] },
);

/** What goes in and out of a few members, whatever the model allows. */
export const anyExposures = (model: Model): fc.Arbitrary<Exposures> => {
  const entities = model.declarations.filter((one): one is Entity => one.kind === 'entity');
  const holdsKey = (entity: Entity) => (one: Declaration) =>
    (one.kind === 'refers' && one.from === entity.name) || (one.kind === 'owns' && one.to === entity.name);
  const choices = entities.flatMap((entity) =>
    [...entity.attributes, ...model.declarations.filter(holdsKey(entity))].map((member) =>
      fc.option(anyChoice, { freq: 1 }).map((choice) => [entity.id, member.id, choice] as const),
    ),
  );
  return fc.tuple(...choices).map((drawn) => {
    const exposures: Record<string, Record<string, ExposureChoice>> = {};
    for (const [entity, member, choice] of drawn)
      if (choice !== null) exposures[entity] = { ...exposures[entity], [member]: choice };
    return exposures;
  });
};

const anyLinkChoice: fc.Arbitrary<LinkChoice> = fc.record(
  {
    leftOut: fc.constant(true as const),
    relation: fc.constantFrom('related', 'self', 'next', 'captain', 'item'),
    title: fc.constantFrom('Plain', 'Schön "so"'),
    hreflang: fc.constant('en'),
    name: fc.constantFrom('one', 'other'),
    in: fc.subarray([...LINK_PLACES], { minLength: 1 }),
    position: fc.integer({ min: 1, max: 4 }),
  },
  { requiredKeys: [] },
);

export interface Drawn {
  readonly model: Model;
  readonly arrangement: Arrangement;
}

/**
 * The sample as it is. A property that counts what it has met draws it first, so that its counts do not
 * hang on what is drawn by chance.
 */
export const sampleDrawn = (): Drawn => ({
  model: modelOf(kestrelText),
  arrangement: arrangementOf('main', NO_CHOICES),
});

/** Any model under any arrangement: places, and settings at every level. */
export const anyArrangement: fc.Arbitrary<Drawn> = anyModel.chain((drawn) =>
  fc
    .record({
      placements: anyPlacements(drawn),
      words: anyWords(drawn),
      exposures: anyExposures(drawn),
      customOperations: anyCustomOperations(drawn),
      design: anySettings('design'),
      settings: anySettings('arrangement'),
      linked: fc.array(fc.record({ pick: fc.nat(), at: fc.nat(), choice: anyLinkChoice }), { maxLength: 3 }),
      own: anyOwnLinks,
      said: anyDocumentation,
      near: fc.array(
        fc.record({ pick: fc.nat(), resource: anySettings('resource'), operation: anySettings('operation') }),
        { maxLength: 3 },
      ),
    })
    .map(({ placements, words, exposures, customOperations, design, settings, linked, own, said, near }) => {
      const choices = { ...NO_CHOICES, arrangements: [{ ...plainArrangement('main'), placements }] };
      const model = completeModel(drawn, choices);
      const bare = { ...plainArrangement('main'), placements, settings, words, exposures, customOperations };
      const of = (made: typeof bare): Arrangement =>
        arrangementOf('main', { ...NO_CHOICES, settings: design, arrangements: [made] });
      const contract = derive(model, of(bare));
      const { operations, resources: placed } = contract;
      const resources: Record<string, SettingValues> = {};
      const byOperation: Record<string, SettingValues> = {};
      for (const one of near) {
        const operation = operations[one.pick % operations.length];
        if (operation === undefined) continue;
        resources[operation.resource] = one.resource;
        byOperation[operationKey(operation.resource, operation.verb)] = one.operation;
      }
      const chosen: { resources: SettingsById; operations: SettingsById } = {
        resources,
        operations: byOperation,
      };
      const links: Record<string, Record<string, LinkChoice>> = {};
      for (const { pick, at, choice } of linked) {
        const resource = placed[pick % placed.length];
        const link = resource?.links[at % resource.links.length];
        if (resource !== undefined && link !== undefined)
          links[resource.id] = { ...links[resource.id], [link.id]: choice };
      }
      const ownLinks = drawnLinks(model, contract, own);
      const documentation = drawnDocumentation(contract, model, said);
      return { model, arrangement: of({ ...bare, ...chosen, links, ownLinks, documentation }) };
    }),
);
