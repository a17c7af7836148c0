SET FOREIGN_KEY_CHECKS = 0;
CREATE TABLE routes (company char(3), number int, name varchar(20), PRIMARY KEY (company, number));
CREATE TABLE stops (
  company char(3) NOT NULL,
  number int NOT NULL,
  position int NOT NULL DEFAULT 1,
  harbour varchar(9) NOT NULL DEFAULT 'KSH',
  PRIMARY KEY (company, number, position),
  FOREIGN KEY (company, number) REFERENCES routes (company, number) ON DELETE CASCADE
);
CREATE TABLE notices (
  id int PRIMARY KEY AUTO_INCREMENT,
  company char(3),
  elsewhere_id int,
  text varchar(200),
  UNIQUE (company, text),
  FOREIGN KEY (company) REFERENCES companies (code),
  FOREIGN KEY (company, elsewhere_id) REFERENCES routes (company, number)
);
CREATE TABLE route_notices (
  company char(3), number int, notice_id int, note varchar(9),
  PRIMARY KEY (company, number, notice_id),
  FOREIGN KEY (company, number) REFERENCES routes (company, number),
  FOREIGN KEY (notice_id) REFERENCES notices (id)
);
