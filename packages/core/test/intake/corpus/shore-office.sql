-- ferries
CREATE TABLE harbours (
  code varchar(5) NOT NULL,
  name varchar(80) NOT NULL UNIQUE COMMENT 'As on the chart',
  opened_on date,
  PRIMARY KEY (code)
) ENGINE=InnoDB COMMENT='Places where ferries call';
CREATE TABLE routes (
  id int unsigned NOT NULL AUTO_INCREMENT PRIMARY KEY,
  name varchar(120) NOT NULL,
  origin_code varchar(5) NOT NULL, destination_code varchar(5) NOT NULL,
  distance decimal(6,1) NOT NULL CHECK (distance >= 0),
  UNIQUE KEY ends (origin_code, destination_code),
  KEY by_name (name(20)),
  CONSTRAINT o FOREIGN KEY (origin_code) REFERENCES harbours (code),
  CONSTRAINT d FOREIGN KEY (destination_code) REFERENCES harbours (code) ON DELETE RESTRICT
);
CREATE TABLE sailings (
  id bigint AUTO_INCREMENT, route_id int unsigned NOT NULL, vessel_id int,
  departs_at datetime NOT NULL,
  status enum('planned','boarding','shore power') NOT NULL DEFAULT 'planned',
  created_at timestamp NOT NULL DEFAULT CURRENT_TIMESTAMP,
  changed_at timestamp NULL ON UPDATE CURRENT_TIMESTAMP,
  picture blob,
  PRIMARY KEY (id),
  FOREIGN KEY (route_id) REFERENCES routes(id) ON DELETE CASCADE
);
CREATE TYPE size AS ENUM ('small', 'large');
CREATE TABLE public."vessels" (id serial primary key, name text not null, size size, tags text[], pin_hash text, active boolean default true);
ALTER TABLE ONLY sailings ADD CONSTRAINT v FOREIGN KEY (vessel_id) REFERENCES vessels(id) ON DELETE SET NULL;
CREATE TABLE certificates (vessel_id int primary key references vessels(id) on delete cascade, number varchar(20) not null, kind varchar(10) check (kind in ('a','b')));
CREATE TABLE crew (id uuid primary key default gen_random_uuid(), boss_id uuid references crew(id));
CREATE TABLE sailing_crew (sailing_id bigint references sailings(id), crew_id uuid references crew(id), duty varchar(20) not null, primary key (sailing_id, crew_id));
COMMENT ON TABLE crew IS 'People aboard';
CREATE VIEW x AS SELECT 1;
INSERT INTO harbours VALUES ('a;b','c');
INSERT INTO harbours VALUES ('KSH','Kestrel Head','1911-04-02'),('WKH','Wick Haven',NULL),('SKR','Skerry Point','1954-07-30');
INSERT INTO routes (id, name, origin_code, destination_code, distance) VALUES
  (7,'Head to Haven','KSH','WKH',12.5),
  (9,'Haven to Skerry','WKH','SKR',8),
  (11,'Nowhere','SKR','XXX',3);
INSERT INTO vessels (name, size, tags) VALUES ('Sula','large','{car,"wheel chair"}'),('Gannet','small',NULL);
INSERT INTO sailings (route_id, vessel_id, departs_at, status) VALUES
  (7,1,'2026-06-14 09:30:00','planned'),(7,2,'2026-06-14 11:30:00','boarding'),(9,NULL,'2026-06-14 10:00:00','shore power'),(11,1,'2026-06-14 12:00:00','planned');
INSERT INTO certificates VALUES (1,'C-1911','a');
