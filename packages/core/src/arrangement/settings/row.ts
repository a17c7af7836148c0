/** From the most general level to the nearest one. */
export const SETTING_LEVELS = ['default', 'design', 'arrangement', 'resource', 'operation'] as const;

/** Where a value was set. */
export type SettingLevel = (typeof SETTING_LEVELS)[number];

/** A level at which something can be chosen. */
export type ChoiceLevel = Exclude<SettingLevel, 'default'>;

export const FOR_DESIGN: readonly ChoiceLevel[] = ['design'];
export const FOR_ARRANGEMENT: readonly ChoiceLevel[] = ['design', 'arrangement'];
export const FOR_RESOURCE: readonly ChoiceLevel[] = ['design', 'arrangement', 'resource'];
export const FOR_ONE_RESOURCE: readonly ChoiceLevel[] = ['resource'];
export const FOR_ONE_OPERATION: readonly ChoiceLevel[] = ['operation'];
export const FOR_OPERATION: readonly ChoiceLevel[] = ['design', 'arrangement', 'resource', 'operation'];

/** What a setting can be. */
export type SettingValue = string | number | readonly string[];

/** What another setting must be for a setting to have an effect: one of some values, a list with an item, or any item. */
export type Effective =
  | { readonly setting: string; readonly is: readonly (string | number)[] }
  | { readonly setting: string; readonly includes: string }
  | { readonly setting: string; readonly isEmpty: false };

/** What every setting has. */
interface Described {
  /** What it decides, in a few plain words. */
  readonly title: string;
  /** What it does, in a sentence, with an example or the section of the standard. */
  readonly help: string;
  readonly levels: readonly ChoiceLevel[];
  /** All of it must hold for the setting to have an effect. */
  readonly when?: readonly Effective[];
}

export interface OptionRow<Value extends string | number> extends Described {
  readonly kind: 'options';
  readonly default: Value;
  readonly options: readonly Value[];
  /** What options are called where their value says too little. */
  readonly labels?: Readonly<Record<Value, string>>;
}

export interface IntegerRow extends Described {
  readonly kind: 'integer';
  readonly default: number;
  readonly min: number;
  readonly max: number;
}

export interface TextRow extends Described {
  readonly kind: 'text';
  readonly default: string;
  readonly pattern: RegExp;
  readonly expected: string;
  /** What an empty text means, where it may be empty. */
  readonly empty?: string;
}

/** Several values, no two the same, the first one first. */
export interface ListRow<Item extends string> extends Described {
  readonly kind: 'list';
  readonly default: readonly Item[];
  /** What the items are: some of these, or texts that fit a pattern. */
  readonly items: readonly Item[] | RegExp;
  readonly min: number;
  readonly max: number;
  readonly expected: string;
  /** What an empty list means, where it may be empty. */
  readonly empty?: string;
}

/** A value that nobody chooses in this version. */
export interface FixedRow {
  readonly kind: 'fixed';
  readonly default: number;
  readonly title: string;
}

/** A setting that can be chosen. */
export type ChoosableRow = OptionRow<string | number> | IntegerRow | TextRow | ListRow<string>;

export const options = <const Value extends string | number>(
  row: Omit<OptionRow<Value>, 'kind' | 'default'> & { readonly default: NoInfer<Value> },
): OptionRow<Value> => ({ kind: 'options', ...row });

export const integer = (row: Omit<IntegerRow, 'kind'>): IntegerRow => ({ kind: 'integer', ...row });

export const text = (row: Omit<TextRow, 'kind'>): TextRow => ({ kind: 'text', ...row });

export const list = <const Item extends string = string>(
  row: Omit<ListRow<Item>, 'kind' | 'default'> & { readonly default: readonly NoInfer<Item>[] },
): ListRow<Item> => ({ kind: 'list', ...row });

/** The name of a member or parameter in camelCase, which it then has in its own case. */
export const name = (row: Pick<TextRow, 'default' | 'title' | 'help' | 'when'>): TextRow => ({
  kind: 'text',
  pattern: /^[a-z][A-Za-z0-9]{0,39}$/,
  expected: 'a name in camelCase, such as items',
  levels: FOR_ARRANGEMENT,
  ...row,
});
