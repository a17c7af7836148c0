CREATE TABLE settings (
  id int PRIMARY KEY AUTO_INCREMENT,
  on_text tinyint(1) NOT NULL DEFAULT '1',
  off_bit bit(1) DEFAULT b'0',
  below int DEFAULT -5,
  ratio decimal(6,3) DEFAULT '1.250',
  begins datetime DEFAULT '2026-01-01 09:30:00',
  opened date DEFAULT '2026-01-01',
  colour varchar(9) DEFAULT 'b\\w',
  code enum('x','y') DEFAULT 'y',
  made timestamp DEFAULT CURRENT_TIMESTAMP,
  made_exactly datetime(3) DEFAULT CURRENT_TIMESTAMP(3),
  token char(36) DEFAULT (uuid()),
  doubled int DEFAULT (2 * 3),
  nothing int DEFAULT NULL
);
