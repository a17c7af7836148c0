CREATE TABLE fares (
  id int PRIMARY KEY AUTO_INCREMENT,
  seats int CHECK (seats > 0),
  berths int CHECK ((`berths` between 1 and 6)),
  price decimal(8,2) CHECK (price > 0),
  rate decimal(5,3) CHECK (0 <= rate AND rate < 1),
  share double CHECK (share > 0),
  kind varchar(10) CHECK (kind IN ('adult','child')),
  class varchar(10) CHECK (class = 'first' OR class = 'second'),
  spare int CHECK (spare IS NULL OR spare >= 2),
  low int,
  high int,
  code varchar(9),
  either int,
  CONSTRAINT ordered CHECK (low < high),
  CONSTRAINT coded CHECK (char_length(code) >= 2 AND char_length(code) <= 8),
  CONSTRAINT one_of CHECK (either > 5 OR either < 2)
);
