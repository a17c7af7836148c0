/** Whose SQL a source is: they differ in quotes, comments and escapes. */
export type SqlDialect = 'mariadb' | 'postgresql';

/** How a source is split into tokens. */
export interface SqlLexing {
  readonly dialect: SqlDialect;
  /** Whether `"` encloses names; in MariaDB it encloses text unless told otherwise. */
  readonly hasQuotedNames: boolean;
  /** Whether a backslash escapes in a plain text. */
  readonly hasEscapes: boolean;
}

/** So much of a source tells whose it is. */
const LOOKED_AT = 400_000;

const OF_MARIADB =
  /`|\bAUTO_INCREMENT\b|\bENGINE\s*=|\bUNSIGNED\b|\/\*!\d|^[ \t]*DELIMITER\b|\b(?:TINY|MEDIUM|LONG)(?:INT|TEXT|BLOB)\b|\bENUM\s*\(/gim;
const OF_POSTGRESQL =
  /::|\$\w*\$|\b(?:BIG|SMALL)?SERIAL\b|\bALTER\s+TABLE\s+ONLY\b|\bFROM\s+stdin\b|\bnextval\b|\bAS\s+IDENTITY\b|\bcharacter\s+varying\b|\bTIMESTAMPTZ\b|\bJSONB\b|\bBYTEA\b|\bCREATE\s+(?:TYPE|DOMAIN|EXTENSION)\b|\bINHERITS\b|\bWITH(?:OUT)?\s+TIME\s+ZONE\b|^\\\w/gim;

const count = (text: string, pattern: RegExp): number => (text.match(pattern) ?? []).length;

/** Tells from its spellings how a source is read. */
export function lexingOf(source: string): SqlLexing {
  const looked = source.slice(0, LOOKED_AT);
  const isPostgres = count(looked, OF_POSTGRESQL) > count(looked, OF_MARIADB);
  if (isPostgres) {
    const hasEscapes = /\bstandard_conforming_strings\s*(?:=|TO)\s*'?off\b/i.test(looked);
    return { dialect: 'postgresql', hasQuotedNames: true, hasEscapes };
  }
  const isAnsi = /\bANSI\b|\bANSI_QUOTES\b/i.test(looked);
  const namesTables = /\b(?:TABLE|EXISTS|REFERENCES|INTO|TYPE)\s+(?:\w+\.)?"|^[ \t]*"\w+"[ \t]+\w/im.test(
    looked,
  );
  return { dialect: 'mariadb', hasQuotedNames: isAnsi || namesTables, hasEscapes: true };
}
