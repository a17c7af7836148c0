export { parse, MAX_TEXT_BYTES } from './parse.js';
export type { StatementPlace } from './statementPlace.js';
export type { ParseResult } from './parse.js';
export {
  print,
  printAttribute,
  printCondition,
  printRelationship,
  printTransition,
  printType,
  VERBS,
} from './print.js';
export { DIAGNOSTIC_CODES } from './diagnostics.js';
export type { Diagnostic, DiagnosticCode, Fix, TextRange } from './diagnostics.js';
export { FLAG_NAMES } from './readAttribute.js';
export { readType, TYPE_NAMES } from './readType.js';
export { withDesignName } from './designName.js';
export { append, insertBelow, removeStatement, replaceStatement } from './edit.js';
export { editText } from './editText.js';
export { format } from './format.js';
export type { FormatResult } from './format.js';
export { findOccurrences, occurrenceAt } from './occurrences.js';
export type { Occurrence } from './occurrences.js';
export { renameAt } from './rename.js';
export type { RenameResult } from './rename.js';
export { suggest } from './complete.js';
export type { Suggestion, Suggestions } from './complete.js';
export { LineReader } from './lineReader.js';
export { WORD } from './tokens.js';
export { tokenize, writeOperand } from './tokens.js';
export type { Token } from './tokens.js';
