/** Every code the reader of the notation can report. A retired code is never used again. */
export const DIAGNOSTIC_CODES = {
  'text.too-large': 'The text is larger than the limit.',
  'model.too-large': 'A model has more of something than its limit, or nests deeper.',
  'indent.tab': 'A tab stands in the indentation.',
  'indent.width': 'The indentation is not a multiple of two spaces, or has no block above it.',
  'token.unknown': 'A character that the notation does not use.',
  'string.open': 'A quoted text is not closed, or has a bad escape.',
  'statement.unknown': 'A line does not begin with a word that starts a statement.',
  'syntax.expected': 'Something else was expected here.',
  'syntax.extra': 'Something follows the end of the statement.',
  'name.case': 'A name is not written in the case its kind asks for.',
  'name.length': 'A name is longer than the limit.',
  'name.duplicate': 'A name is used twice in one place.',
  'design.duplicate': 'There is more than one design line.',
  'type.unknown': 'There is no type of that name.',
  'type.range': 'A range is empty, or its ends do not fit the type.',
  'type.recursive': 'A value contains itself.',
  'choice.duplicate': 'A choice lists the same option twice.',
  'flag.unknown': 'There is no flag of that name.',
  'flag.duplicate': 'A flag stands twice.',
  'flag.conflict': 'Two flags contradict each other, or a flag does not fit the type.',
  'pattern.invalid': 'A pattern cannot be read.',
  'literal.invalid': 'A default or an example does not fit the type.',
  'key.second': 'An entity has more than one key.',
  'key.id': 'An attribute called id is not the key.',
  'key.type': 'A key has a type that cannot stand in a path.',
  'entity.unknown': 'There is no entity of that name.',
  'role.unknown': 'There is no to-one role of that name.',
  'role.duplicate': 'Two things of one entity have the same name.',
  'owner.second': 'An entity has more than one owner.',
  'owner.cycle': 'Entities own each other in a circle.',
  'refers.singleton': 'A relationship points at an entity that has no id of its own.',
  'value.unknown': 'There is no value of that name.',
  'cycle.misplaced': 'A transition stands where there is no life cycle.',
  'cycle.state': 'A transition names a state that its choice does not have.',
  'cycle.default': 'A life cycle has no initial state.',
  'cycle.condition': 'A condition compares what cannot be compared.',
  'computed.invalid': 'What an attribute is computed from is not there, does not fit, or needs itself.',
  'remove.rule': 'A removal rule does not fit the relationship.',
} as const;

export type DiagnosticCode = keyof typeof DIAGNOSTIC_CODES;

/** A place in the text: line and column count from 1, length in UTF-16 code units. */
export interface TextRange {
  readonly line: number;
  readonly column: number;
  readonly length: number;
}

export interface Fix {
  /** What the fix does, as a button would say it: "Use text". */
  readonly title: string;
  /** What it implies, where there are several. */
  readonly means?: string;
  readonly place: TextRange;
  readonly replacement: string;
}

export interface Diagnostic {
  readonly code: DiagnosticCode;
  readonly message: string;
  readonly place: TextRange;
  /** What may have been meant, the likeliest first. */
  readonly fixes: readonly Fix[];
}
