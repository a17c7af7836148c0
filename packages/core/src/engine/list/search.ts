import type { OwnField, QueryParameter } from '../../contract/index.js';
import type { Row } from '../../model/index.js';
import type { RecordView } from '../dataset.js';
import type { ProblemDetail } from '../message.js';
import type { OfModel } from '../service.js';
import type { QueryEntry } from '../target.js';
import { fieldValue } from './field.js';

/** A text that must stand in one of the fields, in whatever case. */
export interface Search {
  readonly text: string;
  readonly fields: readonly OwnField[];
}

/** Reads what is looked for; `null` after an error was reported. */
export function readSearch(
  { name, fields }: Extract<QueryParameter, { role: 'search' }>,
  { value }: QueryEntry,
  errors: ProblemDetail[],
): Search | null {
  if (value !== '') return { text: value.toLowerCase(), fields };
  errors.push({ parameter: name, code: 'type', message: 'Expected a text that is not empty.' });
  return null;
}

/** Whether a record holds the text. */
export const isFound = (service: OfModel, view: RecordView, row: Row, { text, fields }: Search): boolean =>
  fields.some((field) => {
    const value = fieldValue(service, view, row, field);
    return typeof value === 'string' && value.toLowerCase().includes(text);
  });
