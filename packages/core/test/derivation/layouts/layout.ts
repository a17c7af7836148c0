import type { CustomOperation, Placements, SettingValues } from '@isomeros/core/arrangement';

/** A small model laid out in one way, with everything expected of it written by hand. */
export interface Layout {
  /** The rule it shows, as a heading would say it. */
  readonly name: string;
  readonly model: string;
  readonly placements?: Placements;
  readonly settings?: SettingValues;
  /** Path words, by the identity of what they name. */
  readonly words?: Readonly<Record<string, string>>;
  /** Every path under the root with its operations by verb, in tree order; the entry is left out. */
  readonly paths: readonly string[];
  /** Links, as `path: relation → target`, that must be there. */
  readonly links?: readonly string[];
  /** Members, as `Shape: member member!`, that a shape has; `!` is required. `links` is left out. */
  readonly members?: readonly string[];
  /** Query parameters by name, as `path: page size name[eq ne]`, of a list or a read. */
  readonly parameters?: readonly string[];
  readonly customOperations?: readonly CustomOperation[];
  /** Settings of single resources, by their id. */
  readonly resources?: Readonly<Record<string, SettingValues>>;
  /** Rules among the reasons of a path, as `path: rule`. */
  readonly reasons?: readonly string[];
  readonly findings?: readonly string[];
}

/** Layouts that show the rules about one thing. */
export interface Chapter {
  readonly title: string;
  readonly layouts: readonly Layout[];
}
