import { isJsonObject, type Json, type JsonObject } from '../../model/index.js';

/** What can stand once in a document and be referred to (OAS §4.8.7), beside schemas. */
export const SHARED_SECTIONS = ['responses', 'parameters', 'headers', 'links'] as const;

type Section = (typeof SHARED_SECTIONS)[number];

interface Component {
  /** What stands for it until the document is whole. */
  readonly mark: string;
  readonly section: Section;
  /** What it may be called: the first that is free, else the last with a number. */
  readonly names: readonly string[];
  readonly value: JsonObject;
  uses: number;
}

const OUTSIDE_OF_NAMES = /[^A-Za-z0-9._-]+/g;

/** What a component may be called (OAS §4.8.7). */
export const componentName = (text: string): string => text.replace(OUTSIDE_OF_NAMES, '_');

/** A name that nothing has yet, which then has it. */
export function freeName(names: readonly string[], taken: Set<string>): string {
  let free = names.find((name) => !taken.has(name));
  for (let number = 2; free === undefined; number++) {
    const numbered = `${names.at(-1) ?? ''}.${number}`;
    if (!taken.has(numbered)) free = numbered;
  }
  taken.add(free);
  return free;
}

/**
 * Collects what would stand twice in a document. What is the same is one component; what turns out to stand once is put
 * back where it is used.
 */
export class SharedComponents {
  private readonly byText = new Map<string, Component>();
  private readonly byMark = new Map<string, Component>();
  private readonly byValue = new WeakMap<JsonObject, Component>();

  /**
   * What stands for a component until the document is whole. `write`: what the component holds, where that is not the
   * value as it is; asked once for each value.
   */
  refer(
    section: Section,
    names: readonly string[],
    value: JsonObject,
    write: (value: JsonObject) => JsonObject = (same) => same,
  ): JsonObject {
    const component = this.byValue.get(value) ?? this.componentOf(section, names, write(value));
    this.byValue.set(value, component);
    component.uses++;
    return { $ref: component.mark };
  }

  private componentOf(section: Section, names: readonly string[], value: JsonObject): Component {
    const text = `${section} ${JSON.stringify(value)}`;
    const known = this.byText.get(text);
    if (known !== undefined) return known;
    const mark = `${section} ${this.byMark.size}`;
    const made = { mark, section, names: names.map(componentName), value, uses: 0 };
    this.byText.set(text, made);
    this.byMark.set(mark, made);
    return made;
  }

  /** The parts of a document in which everything that stands once is in its place, and components by section. */
  inPlace(json: Json): { readonly json: Json; readonly components: Readonly<Record<string, JsonObject>> } {
    const names = this.named();
    const sections = SHARED_SECTIONS.flatMap((section) => {
      const of = [...names].filter(([component]) => component.section === section);
      const all = of.map(([{ value }, name]) => [name, this.resolved(value, names)] as const);
      const named: JsonObject = Object.fromEntries(all);
      return all.length === 0 ? [] : [[section, named] as const];
    });
    return { json: this.resolved(json, names), components: Object.fromEntries(sections) };
  }

  /** What stands twice, with its name. */
  private named(): ReadonlyMap<Component, string> {
    const taken = new Map(SHARED_SECTIONS.map((section) => [section, new Set<string>()]));
    return new Map(
      [...this.byText.values()]
        .filter(({ uses }) => uses > 1)
        .map((component) => [
          component,
          freeName(component.names, taken.get(component.section) ?? new Set()),
        ]),
    );
  }

  private resolved(json: Json, named: ReadonlyMap<Component, string>): Json {
    if (Array.isArray(json)) return (json as readonly Json[]).map((item) => this.resolved(item, named));
    if (!isJsonObject(json)) return json;
    const component = typeof json['$ref'] === 'string' ? this.byMark.get(json['$ref']) : undefined;
    if (component !== undefined) {
      const name = named.get(component);
      return name === undefined
        ? this.resolved(component.value, named)
        : { $ref: `#/components/${component.section}/${name}` };
    }
    return Object.fromEntries(Object.entries(json).map(([key, value]) => [key, this.resolved(value, named)]));
  }
}
