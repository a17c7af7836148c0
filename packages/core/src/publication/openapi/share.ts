import { entryOf, type JsonObject } from '../../model/index.js';

/** What can stand once in a document and be referred to (OAS §4.8.7), beside schemas. */
export const SHARED_SECTIONS = ['responses', 'parameters', 'headers', 'links'] as const;

type Section = (typeof SHARED_SECTIONS)[number];

interface Component {
  /** What it may be called: the first that is free, else the last with a number. */
  readonly names: readonly string[];
  readonly value: JsonObject;
  /** What stands for it: a reference, which gets its name when the document is whole. */
  readonly mark: { $ref: string };
  readonly first: Put;
  uses: number;
}

/** Puts what stands for a value in its place. */
type Put = (stands: JsonObject) => void;

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
 * Collects what would stand twice in a document. What is the same is one component; what turns out to stand once stays
 * where it is.
 */
export class SharedComponents {
  private readonly bySection = new Map<Section, Map<string, Component>>();
  private readonly byValue = new Map<JsonObject, Component>();

  /**
   * Puts what stands for a value in its place. `write`: what the component holds, where that is not the value as it is;
   * asked once for each value.
   */
  place(
    section: Section,
    names: readonly string[],
    value: JsonObject,
    put: Put,
    write: (value: JsonObject) => JsonObject = (same) => same,
  ): void {
    let component = this.byValue.get(value);
    if (component === undefined) {
      component = this.componentOf(section, names, write(value), put);
      this.byValue.set(value, component);
    }
    component.uses++;
    put(component.mark);
  }

  private componentOf(section: Section, names: readonly string[], value: JsonObject, first: Put): Component {
    const ofSection = entryOf(this.bySection, section, () => new Map<string, Component>());
    return entryOf(ofSection, JSON.stringify(value), () => {
      const mark = { $ref: `${section} ${ofSection.size}` };
      return { names: names.map(componentName), value, mark, first, uses: 0 };
    });
  }

  /** Makes the document whole: what stands once is in its place, the rest is referred to. Components by section. */
  settle(): Readonly<Record<string, JsonObject>> {
    const sections = SHARED_SECTIONS.map((section) => [section, this.settled(section)] as const);
    return Object.fromEntries(sections.filter(([, named]) => Object.keys(named).length > 0));
  }

  private settled(section: Section): JsonObject {
    const taken = new Set<string>();
    const named: [name: string, value: JsonObject][] = [];
    for (const { names, value, mark, first, uses } of this.bySection.get(section)?.values() ?? []) {
      if (uses === 1) {
        first(value);
        continue;
      }
      const name = freeName(names, taken);
      named.push([name, value]);
      mark.$ref = `#/components/${section}/${name}`;
    }
    return Object.fromEntries(named);
  }
}
