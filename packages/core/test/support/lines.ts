import {
  arrangementOf,
  NO_CHOICES,
  plainArrangement,
  readEffect,
  type Arrangement,
  type CustomOperation,
  type SettingsById,
  type SettingValues,
} from '@isomeros/core/arrangement';
import type { Model } from '@isomeros/core/model';

/** An operation of one's own as it is written: what it is about, its name, and what it does. */
export type OperationLine = readonly [entity: string | null, name: string, line: string];

/** Operations of one's own from their lines. */
export const operationsOf = (model: Model, lines: readonly OperationLine[]): readonly CustomOperation[] =>
  lines.map(([entity, name, line]) => {
    const read = readEffect(model, entity, line);
    if (!read.ok) throw new Error(`${line}: ${read.message}`);
    const found = model.declarations.find((one) => one.kind === 'entity' && one.name === entity);
    return { id: name, name, entity: found?.id ?? null, effect: read.effect };
  });

/** An arrangement with operations of one's own. */
export const arrangedWith = (
  model: Model,
  lines: readonly OperationLine[],
  settings: SettingValues = {},
  operations: SettingsById = {},
): Arrangement =>
  arrangementOf('main', {
    ...NO_CHOICES,
    arrangements: [
      { ...plainArrangement('main'), settings, operations, customOperations: operationsOf(model, lines) },
    ],
  });
