import type { Attribute, Expression } from '../../model/index.js';
import type { Dialect } from './dialect.js';
import { plainNumber } from './numbers.js';

/**
 * What an attribute is computed from as SQL computes it; `null` where a table cannot: from other records, by division,
 * which databases round otherwise, with times, or from what the database makes itself.
 */
export function computedSql(
  dialect: Dialect,
  attribute: Attribute,
  among: readonly Attribute[],
  columnOf: (attribute: string) => string,
): string | null {
  const writer = new Writer(dialect, among, columnOf);
  return attribute.computed === null ? null : writer.write(attribute.computed);
}

class Writer {
  constructor(
    private readonly dialect: Dialect,
    private readonly among: readonly Attribute[],
    private readonly columnOf: (attribute: string) => string,
  ) {}

  write(expression: Expression): string | null {
    switch (expression.kind) {
      case 'literal':
        return typeof expression.value === 'number'
          ? plainNumber(expression.value)
          : this.dialect.text(expression.value);
      case 'attribute': {
        const read = this.read(expression.name);
        return read === null ? null : this.dialect.quoted(this.columnOf(read.name));
      }
      case 'operation':
        return this.operation(expression);
      case 'aggregate':
        return null;
    }
  }

  /** An attribute that is stored and that a generated column may read. */
  private read(name: string): Attribute | null {
    const found = this.among.find((one) => one.name === name);
    if (found === undefined || found.computed !== null || found.generated || found.touched) return null;
    return NUMBERS.has(found.type.kind) || TEXTS.has(found.type.kind) ? found : null;
  }

  private operation({ operator, left, right }: Extract<Expression, { kind: 'operation' }>): string | null {
    const [one, other] = [this.write(left), this.write(right)];
    if (one === null || other === null || operator === '/') return null;
    if (operator !== '&')
      return this.isNumber(left) && this.isNumber(right) ? `(${one} ${operator} ${other})` : null;
    if (!this.isJoined(left) || !this.isJoined(right)) return null;
    return this.dialect.joined([
      { sql: one, isText: this.isText(left) },
      { sql: other, isText: this.isText(right) },
    ]);
  }

  private isNumber(expression: Expression): boolean {
    switch (expression.kind) {
      case 'literal':
        return typeof expression.value === 'number';
      case 'attribute':
        return NUMBERS.has(this.read(expression.name)?.type.kind ?? '');
      case 'operation':
        return expression.operator !== '&';
      case 'aggregate':
        return false;
    }
  }

  private isText(expression: Expression): boolean {
    switch (expression.kind) {
      case 'literal':
        return typeof expression.value === 'string';
      case 'attribute':
        return TEXTS.has(this.read(expression.name)?.type.kind ?? '');
      case 'operation':
        return expression.operator === '&';
      case 'aggregate':
        return false;
    }
  }

  /** Texts, and whole numbers, which every database writes alike. */
  private isJoined(expression: Expression): boolean {
    if (this.isText(expression)) return true;
    if (expression.kind === 'literal') return Number.isInteger(expression.value);
    return expression.kind === 'attribute' && this.read(expression.name)?.type.kind === 'integer';
  }
}

const NUMBERS: ReadonlySet<string> = new Set(['integer', 'decimal']);
const TEXTS: ReadonlySet<string> = new Set(['text', 'choice', 'email', 'uri']);
