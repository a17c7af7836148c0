import { describe, expect, test } from '@jest/globals';
import { importModel } from '@isomeros/core/intake';
import { left, read, records } from '../support/intakeRecords.js';

describe('values as SQL writes them', () => {
  test.each([
    ['int', '-7', -7],
    ['int', "'42'", 42],
    ['tinyint(1)', '0', false],
    ['tinyint(1)', "b'1'", true],
    ['bit', "b'0'", false],
    ['bool', 'TRUE', true],
    ['boolean', "'f'::boolean", false],
    ['decimal(8,2)', '12.50', 12.5],
    ['double', '1e3', 1000],
    ['varchar(20)', "'it''s'", "it's"],
    ['varchar(20)', "'O\\'Neill'", "O'Neill"],
    ['varchar(20)', "E'a\\tb'", 'a\tb'],
    ['varchar(20)', '0x4b5348', 'KSH'],
    ['text', "x'4b'", 'K'],
    ['date', "'2026-06-14'", '2026-06-14'],
    ['date', 'CURRENT_DATE', '2026-06-14'],
    ['datetime', "'2026-06-14 09:30:00'", '2026-06-14T09:30:00Z'],
    ['timestamptz', "'2026-06-14 09:30:00+02'", '2026-06-14T09:30:00+02:00'],
    ['datetime', 'NOW()', '2026-06-14T09:12:00.000Z'],
    ['time', "'08:30:00'", '08:30:00'],
    ['interval', "'2 days 01:30:00'", 'P2DT1H30M0S'],
    ['uuid', "'6F1C1F7E-9C1B-4E0A-9C53-0C2B7D1E8A11'", '6f1c1f7e-9c1b-4e0a-9c53-0c2b7d1e8a11'],
    ["enum('a','b')", "'b'", 'b'],
    ["set('a','b','c')", "'a,c'", ['a', 'c']],
    ["set('a','b')", "''", []],
    ['text[]', `'{fuel,"two words","a\\\\"b",NULL}'`, undefined],
    ['text[]', `'{fuel,"two words"}'`, ['fuel', 'two words']],
    ['int[]', 'ARRAY[1, 2]::int[]', [1, 2]],
    ['jsonb', `'{"a": [1, null]}'::jsonb`, { a: [1, null] }],
    ['json', `'"x"'`, 'x'],
    ['hstore', `'"a"=>"1", "b"=>NULL'`, { a: '1', b: null }],
    ['bytea', "'\\x4b5348'", 'S1NI'],
    ['blob', "x'4b5348'", 'S1NI'],
    ['blob', "'KSH'", 'S1NI'],
    ['int', 'NULL', undefined],
    ['int', 'DEFAULT', undefined],
    ['int', '1 + 2', undefined],
    ['int', "'x'", undefined],
    ['date', "'0000-00-00'", undefined],
  ])('%s %s', (type, written, expected) => {
    const { text, ...intake } = read(
      'sql',
      `CREATE TABLE t (id int PRIMARY KEY, v ${type});
INSERT INTO t (id, v) VALUES (5, ${written});`,
    );
    expect([text.includes('v: '), records({ text, ...intake })]).toEqual([
      true,
      { T: [{ id: 5, ...(expected === undefined ? {} : { v: expected }) }] },
    ]);
  });
});

const TABLES = `CREATE TABLE owners (id serial PRIMARY KEY, name text NOT NULL);
CREATE TABLE boats (
  code text PRIMARY KEY, owner_id int NOT NULL REFERENCES owners (id) ON DELETE CASCADE, mate text REFERENCES boats (code)
);
`;

describe('rows become records', () => {
  test.each([
    ['without names of columns', "INSERT INTO owners VALUES (1,'Ada'),(2,'Bo');"],
    ['with names, in any order', "INSERT INTO owners (name, id) VALUES ('Ada',1),('Bo',2);"],
    ['by SET', "INSERT INTO owners SET id = 1, name = 'Ada'; REPLACE INTO owners SET id=2, name='Bo';"],
    ['by COPY', 'COPY owners (id, name) FROM stdin;\n1\tAda\n2\tBo\n\\.\n'],
    [
      'ignoring others',
      "INSERT IGNORE INTO owners VALUES (1,'Ada'),(2,'Bo') ON DUPLICATE KEY UPDATE name=VALUES(name);",
    ],
    [
      'overriding identity',
      "INSERT INTO owners (id,name) OVERRIDING SYSTEM VALUE VALUES (1,'Ada'),(2,'Bo') ON CONFLICT DO NOTHING;",
    ],
  ])('%s', (_, statements) => {
    expect(records(read('sql', TABLES + statements))).toEqual({
      Owner: [
        { id: 1, name: 'Ada' },
        { id: 2, name: 'Bo' },
      ],
    });
  });

  test.each([
    [
      '',
      [
        { id: 1, name: 'Ada' },
        { id: 2, name: 'Bo' },
        { id: 7, name: 'Cy' },
        { id: 8, name: 'Di' },
      ],
    ],
    [
      "SET SQL_MODE='NO_AUTO_VALUE_ON_ZERO';\n",
      [
        { id: 0, name: 'Ada' },
        { id: 7, name: 'Cy' },
        { id: 8, name: 'Di' },
      ],
    ],
  ])('a zero asks MariaDB for the next number, unless it is told otherwise: %j', (before, expected) => {
    const source = `${before}CREATE TABLE \`owners\` (id int AUTO_INCREMENT PRIMARY KEY, name varchar(9) NOT NULL) ENGINE=InnoDB;
INSERT INTO owners PARTITION (p0) VALUES (0,'Ada'),(0,'Bo'),(7,'Cy'),(NULL,'Di');`;
    expect(records(read('sql', source))).toEqual({ Owner: expected });
  });

  test('ids below 1 are keys, too', () => {
    const intake = read('sql', `${TABLES}INSERT INTO owners VALUES (0,'Ada'),(-2,'Bo'),(DEFAULT,'Cy');`);
    expect(intake.text).toContain('id: integer, key, generated');
    expect(records(intake)).toEqual({
      Owner: [
        { id: 0, name: 'Ada' },
        { id: -2, name: 'Bo' },
        { id: 1, name: 'Cy' },
      ],
    });
  });

  test('what has no id gets the one that the database would give it', () => {
    const intake = read(
      'sql',
      `${TABLES}INSERT INTO owners (name) VALUES ('Ada');\nINSERT INTO owners VALUES (7,'Bo');`,
    );
    expect(records(intake)).toEqual({
      Owner: [
        { id: 1, name: 'Ada' },
        { id: 7, name: 'Bo' },
      ],
    });
  });

  test('columns are those of the moment: what is renamed or dropped later keeps or loses its values', () => {
    const source = `CREATE TABLE t (id int PRIMARY KEY, a int, b int);
INSERT INTO t VALUES (1, 2, 3);
ALTER TABLE t DROP COLUMN a; ALTER TABLE t CHANGE b c bigint; ALTER TABLE t RENAME TO things;`;
    expect(records(read('sql', source))).toEqual({ Thing: [{ id: 1, c: 3 }] });
  });

  test('keys of several columns, pairs with what they carry, and parts of a table', () => {
    const source = `CREATE TABLE decks (ship int, level int, PRIMARY KEY (ship, level));
CREATE TABLE cabins (id int PRIMARY KEY, ship int, level int, FOREIGN KEY (ship, level) REFERENCES decks (ship, level));
CREATE TABLE guests (id int PRIMARY KEY);
CREATE TABLE stays (cabin_id int REFERENCES cabins (id), guest_id int REFERENCES guests (id), nights int, PRIMARY KEY (cabin_id, guest_id));
CREATE TABLE logs (id int PRIMARY KEY, at date) PARTITION BY RANGE (at);
CREATE TABLE logs_a PARTITION OF logs FOR VALUES FROM ('2026-01-01') TO ('2027-01-01');
INSERT INTO decks VALUES (1, 2), (1, 3);
INSERT INTO cabins VALUES (5, 1, 3);
INSERT INTO guests VALUES (9);
INSERT INTO stays VALUES (5, 9, 4);
INSERT INTO logs_a VALUES (1, '2026-06-14');`;
    expect(records(read('sql', source))).toEqual({
      Deck: [
        { id: 1, ship: 1, level: 2 },
        { id: 2, ship: 1, level: 3 },
      ],
      Cabin: [{ id: 5, deck: 2 }],
      Guest: [{ id: 9 }],
      Log: [{ id: 1, at: '2026-06-14' }],
      'Cabin guests': [{ cabin: 5, guest: 9, stay: { nights: 4 } }],
    });
  });

  test('an answer that turns a relationship around, or changes a type, is followed', () => {
    const source = `${TABLES}INSERT INTO owners VALUES (1,'Ada');\nINSERT INTO boats VALUES ('A', 1, NULL);`;
    const { asked } = importModel('sql', source, 'Given');
    const turn = asked.findIndex(({ options }) => options[1]?.label === 'yes, it refers to it');
    const turned = read('sql', source, { [turn]: 1 });
    expect(turned.text).toContain('each Boat refers to one Owner');
    expect(records(turned)).toMatchObject({ Boat: [{ code: 'A', owner: 1 }] });
  });
});

describe('what does not fit is told with its line', () => {
  test.each<[string, string, readonly (readonly [number, string, string])[], number]>([
    [
      'a reference to nothing',
      "INSERT INTO boats VALUES ('A', 9, NULL);",
      [[5, 'Boat A: owner, Owner 9', 'It refers to a record that is not there.']],
      0,
    ],
    [
      'what needs what is left out, and so on',
      "INSERT INTO boats VALUES ('A', 9, NULL);\nINSERT INTO boats VALUES ('B', 1, 'A');\nINSERT INTO owners VALUES (1, 'Ada');",
      [
        [5, 'Boat A: owner, Owner 9', 'It refers to a record that is not there.'],
        [6, 'Boat B: mate', 'Its mate is left out. It is unset.'],
      ],
      2,
    ],
    [
      'the same key again',
      "INSERT INTO owners VALUES (1, 'Ada');\nINSERT INTO owners VALUES (1, 'Bo');",
      [[6, 'Owner 1', 'Another record has the same id.']],
      1,
    ],
    [
      'a value that must be there',
      'INSERT INTO owners VALUES (1, NULL);',
      [[5, 'Owner 1', 'name is required and has no value.']],
      0,
    ],
    [
      'too many values',
      "INSERT INTO owners VALUES (1, 'Ada', 3);",
      [[5, 'owners: 3 values', 'Expected 2, one for each column.']],
      0,
    ],
    [
      'a table that is not there',
      'INSERT INTO berths VALUES (1);',
      [[5, 'INSERT INTO berths VALUES ( 1 )', 'There is no table berths.']],
      0,
    ],
    [
      'a column that is not there',
      "INSERT INTO owners (id, name, age) VALUES (1, 'Ada', 40);",
      [[5, 'owners.age', 'There is no such column; its values are left out.']],
      1,
    ],
    [
      'a table that is dropped',
      'CREATE TABLE x (id int PRIMARY KEY); INSERT INTO x VALUES (1);\nDROP TABLE x;',
      [[5, 'x', 'Its table is dropped later.']],
      0,
    ],
    [
      'what a query gives',
      'INSERT INTO owners SELECT 1, name FROM x;',
      [[5, 'INSERT INTO owners SELECT 1 , name FROM x', 'Its records are not written out.']],
      0,
    ],
    [
      'COPY in another format',
      'COPY owners FROM stdin WITH (FORMAT csv);\n1,Ada\n\\.\n',
      [
        [
          5,
          'COPY owners FROM stdin WITH ( FORMAT csv )',
          'Only records in the text format of COPY are read.',
        ],
      ],
      0,
    ],
  ])('%s', (_, statements, expected, count) => {
    const intake = read('sql', `${TABLES}${statements}`);
    expect(left(intake)).toEqual(expected);
    expect(intake.rows).toHaveLength(count);
    for (const { found, understood, asked, leftOut } of intake.counts)
      expect(understood + asked + leftOut).toBe(found);
  });

  test('thousands of records are told by their first', () => {
    const chain = Array.from({ length: 3_000 }, (_, at) => `('B${at}', ${at}, NULL)`).join(',\n');
    const intake = read('sql', `${TABLES}INSERT INTO boats VALUES ${chain};`);
    expect(intake.leftOut).toHaveLength(1_001);
    expect(intake.leftOut.at(-1)).toMatchObject({ source: '2000 more' });
    expect(new Set(intake.leftOut.slice(0, -1).map(({ why }) => why)).size).toBe(1);
  });
});
