import type { IntakeFormat } from '@isomeros/core/intake';

/** What a model can be read from; a live schema is fetched first and read as DDL. */
export type SourceKind = IntakeFormat | 'live';

export interface SourceText {
  readonly kind: IntakeFormat;
  readonly text: string;
  /** The name of the file or schema it is from; the empty text where it was pasted. */
  readonly name: string;
}

interface SourceWords {
  readonly title: string;
  readonly about: string;
  readonly example: string;
}

export const SOURCES: Readonly<Record<SourceKind, SourceWords>> = {
  sql: {
    title: 'SQL DDL',
    about: 'in the spelling of MariaDB or PostgreSQL',
    example: `CREATE TABLE members (
  id int AUTO_INCREMENT PRIMARY KEY,
  email varchar(120) NOT NULL UNIQUE
);

CREATE TABLE loans (
  id int AUTO_INCREMENT PRIMARY KEY,
  member_id int NOT NULL REFERENCES members (id) ON DELETE CASCADE,
  due_on date NOT NULL
);`,
  },
  live: { title: 'MariaDB schema', about: 'read where it runs, in a session that cannot write', example: '' },
  'json-schema': {
    title: 'JSON Schema',
    about: '2020-12 or draft-07, with $defs or definitions',
    example: `{
  "$defs": {
    "Member": {
      "type": "object",
      "required": ["id", "name"],
      "properties": {
        "id": { "type": "integer", "readOnly": true },
        "name": { "type": "string", "maxLength": 80 },
        "loans": { "type": "array", "items": { "$ref": "#/$defs/Loan" } }
      }
    },
    "Loan": {
      "type": "object",
      "properties": { "dueOn": { "type": "string", "format": "date" } }
    }
  }
}`,
  },
  records: {
    title: 'Sample records',
    about: 'a JSON array or object, lines of JSON, or values between commas',
    example: `{
  "members": [{ "id": 1, "name": "Ada Finch" }, { "id": 2, "name": "Bo Lark" }],
  "loans": [{ "id": 7, "memberId": 1, "dueOn": "2026-06-14" }]
}`,
  },
};

export const SOURCE_KINDS = Object.keys(SOURCES) as readonly SourceKind[];

export const isSourceKind = (text: string | null): text is SourceKind =>
  text !== null && Object.hasOwn(SOURCES, text);

/** What a file holds, by the ending of its name and, for JSON, by what stands in it. */
export function kindOfFile(name: string, text: string): IntakeFormat | 'design' | 'notation' {
  const ending = name.toLowerCase();
  if (ending.endsWith('.sql')) return 'sql';
  if (ending.endsWith('.csv') || ending.endsWith('.tsv') || /\.(ndjson|jsonl)$/.test(ending))
    return 'records';
  if (!ending.endsWith('.json')) return 'notation';
  if (/"format"\s*:\s*"isomeros-design"/.test(text.slice(0, 2_000))) return 'design';
  return /"(\$schema|\$defs|definitions|properties)"\s*:/.test(text) ? 'json-schema' : 'records';
}

/** A name for the design, from the name of a file: `sound-ferries.sql` → `Sound ferries`. */
export function designName(file: string): string {
  const words = file
    .replace(/\.[A-Za-z.]+$/, '')
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim();
  return words === '' ? '' : words.charAt(0).toUpperCase() + words.slice(1);
}
