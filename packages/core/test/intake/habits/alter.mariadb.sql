CREATE TABLE people (number int, name varchar(20), born date, town varchar(20), boss int);
ALTER TABLE people
  MODIFY COLUMN number int NOT NULL AUTO_INCREMENT PRIMARY KEY,
  CHANGE COLUMN town home_town varchar(40) NOT NULL DEFAULT 'Wick Haven',
  ADD COLUMN email varchar(90) AFTER name,
  ADD UNIQUE KEY by_name (name),
  ADD UNIQUE INDEX twice (name, born);
ALTER TABLE people
  ADD CONSTRAINT their_boss FOREIGN KEY (boss) REFERENCES people (number) ON DELETE SET NULL;
ALTER TABLE people DROP INDEX twice, DROP COLUMN born;
ALTER TABLE people ADD CONSTRAINT old_enough CHECK (char_length(home_town) > 10), ADD note text, ADD KEY by_note (note(10));
ALTER TABLE people DROP CONSTRAINT old_enough, ALTER COLUMN email SET DEFAULT 'crew@ferries.example', RENAME COLUMN note TO remark;
RENAME TABLE people TO crew_members;
CREATE TABLE old_ones LIKE crew_members;
CREATE TABLE gone (a int);
DROP TABLE gone;
ALTER TABLE old_ones RENAME TO former_crew;
