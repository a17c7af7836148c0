import { Format, isJsonObject, type Json, type JsonObject } from '../model/index.js';
import { SETTINGS } from './settings/table.js';
import { FIRST_ARRANGEMENT, NO_CHOICES, plainArrangement, type Choices } from './choices.js';

/** How choices are kept: by designs, revisions, datasets, snapshots and design files. */
export const CHOICES_FORMAT = new Format('A design', [asList, withListsOfSettings, withSizesInside]);

/**
 * Choices as any version kept them, in today's form. `format` is theirs where they do not tell it themselves; the
 * first one did not know of arrangements about which nothing was decided: `names` are all there were.
 */
export function upgradeChoices(kept: Json, format?: number, names: readonly string[] = []): Json {
  if (!isJsonObject(kept)) return kept;
  const own = format ?? kept['format'] ?? (Array.isArray(kept['arrangements']) ? 2 : 1);
  const given = own === 1 ? { ...kept, arrangements: byName(kept['arrangements'], names) } : kept;
  return withEach(CHOICES_FORMAT.upgrade({ ...given, format: own }), completed);
}

/** Choices from the text in which they are kept. */
export const readKeptChoices = (text: string): Choices => ({
  ...NO_CHOICES,
  ...(upgradeChoices(JSON.parse(text) as Json) as Partial<Choices>),
});

/** The text in which choices are kept. */
export const keepChoices = (choices: Choices): string => JSON.stringify(CHOICES_FORMAT.stamp(choices));

function byName(arrangements: Json | undefined, names: readonly string[]): JsonObject {
  const known = isJsonObject(arrangements) ? arrangements : {};
  const all = new Set([...(names.length === 0 ? [FIRST_ARRANGEMENT] : names), ...Object.keys(known)]);
  return Object.fromEntries(
    [...all].map((name) => [name, Object.hasOwn(known, name) ? (known[name] ?? {}) : {}]),
  );
}

/** Format 1 has the settings of arrangements by their names. */
function asList({ arrangements, ...others }: JsonObject): JsonObject {
  const named = isJsonObject(arrangements) ? Object.entries(arrangements) : [];
  return { ...others, arrangements: named.map(([name, settings]) => ({ name, settings })) };
}

/** Format 2 joins what is a list with commas, calls custom operations `customs` and their verb `act`. */
function withListsOfSettings(kept: JsonObject): JsonObject {
  return withEach({ ...kept, settings: listed(kept['settings']) }, (arrangement) => {
    if (!isJsonObject(arrangement)) return arrangement;
    const { customs, resources, operations, ...parts } = arrangement;
    return {
      ...parts,
      settings: listed(arrangement['settings']),
      resources: mapped(resources, listed),
      operations: mapped(operations, listed, (key) => key.replace(/:act$/, ':custom')),
      customOperations: customs ?? [],
    };
  });
}

/** What joined the items of a setting that was a text, and what stood for none. */
const JOINED: Readonly<Record<string, { readonly by: string; readonly none: string }>> = {
  mediaTypes: { by: ', ', none: '' },
  security: { by: ', ', none: 'none' },
  defaultSort: { by: ',', none: '' },
};

/**
 * In format 3 an expansion held as many records as the largest page of the arrangement, whatever the list had. It was
 * also kept before the table of nouns, for which `keepPlurals` needs the model.
 */
function withSizesInside(kept: JsonObject): JsonObject {
  const design = isJsonObject(kept['settings']) ? kept['settings'] : {};
  return withEach(kept, (arrangement) => {
    if (!isJsonObject(arrangement)) return arrangement;
    const own = isJsonObject(arrangement['settings']) ? arrangement['settings'] : {};
    if ((own['expand'] ?? design['expand']) !== 'on') return arrangement;
    const expandSize = own['maxPageSize'] ?? design['maxPageSize'] ?? SETTINGS.maxPageSize.default;
    const resources = mapped(arrangement['resources'], (settings) =>
      isJsonObject(settings) && (settings['maxPageSize'] ?? expandSize) !== expandSize
        ? { ...settings, expandSize }
        : settings,
    );
    return { ...arrangement, resources };
  });
}

/** The value of a setting as a list where it is one, from the text that it was in formats before. */
export function listedSetting(name: string, value: Json): Json {
  const joined = Object.hasOwn(JOINED, name) ? JOINED[name] : undefined;
  if (joined === undefined || typeof value !== 'string') return value;
  return value === joined.none ? [] : value.split(joined.by);
}

const listed = (settings: Json | undefined): Json =>
  isJsonObject(settings)
    ? Object.fromEntries(Object.entries(settings).map(([name, value]) => [name, listedSetting(name, value)]))
    : (settings ?? {});

const mapped = (
  byId: Json | undefined,
  change: (value: Json) => Json,
  rename: (key: string) => string = (key) => key,
): Json =>
  isJsonObject(byId)
    ? Object.fromEntries(Object.entries(byId).map(([id, value]) => [rename(id), change(value)]))
    : (byId ?? {});

/** The same choices with every arrangement changed. */
function withEach(choices: JsonObject, change: (arrangement: Json) => Json): JsonObject {
  const { arrangements } = choices;
  return Array.isArray(arrangements)
    ? { ...choices, arrangements: (arrangements as readonly Json[]).map(change) }
    : choices;
}

/** What could not be decided yet when it was kept is empty. */
const completed = (arrangement: Json): Json =>
  isJsonObject(arrangement) && typeof arrangement['name'] === 'string'
    ? { ...PLAIN, ...arrangement }
    : arrangement;

const PLAIN = plainArrangement('') as unknown as JsonObject;
