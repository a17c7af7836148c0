-- MariaDB dump 10.19  Distrib 10.11.6-MariaDB
/*!40101 SET NAMES utf8mb4 */;
/*!40014 SET FOREIGN_KEY_CHECKS=0 */;

CREATE TABLE `harbours` (
  `code` char(3) NOT NULL,
  `name` varchar(80) NOT NULL,
  `parent` char(3) DEFAULT NULL,
  `services` set('fuel','water','ice') NOT NULL DEFAULT '',
  `extra` longtext CHARACTER SET utf8mb4 COLLATE utf8mb4_bin DEFAULT NULL CHECK (json_valid(`extra`)),
  `crest` varbinary(20) DEFAULT NULL,
  `open` bit(1) NOT NULL DEFAULT b'1',
  PRIMARY KEY (`code`),
  CONSTRAINT `harbour_parent` FOREIGN KEY (`parent`) REFERENCES `harbours` (`code`)
) ENGINE=InnoDB;
CREATE TABLE `sailings` (
  `id` bigint(20) unsigned NOT NULL AUTO_INCREMENT,
  `harbour` char(3) NOT NULL,
  `departs_at` datetime(3) NOT NULL,
  `gates_close` time DEFAULT NULL,
  `price` decimal(10,2) NOT NULL,
  `seats` int(11) NOT NULL,
  `total` decimal(20,2) GENERATED ALWAYS AS (`price` * `seats`) VIRTUAL,
  `created_at` timestamp NOT NULL DEFAULT current_timestamp(),
  PRIMARY KEY (`id`),
  CONSTRAINT `sailing_harbour` FOREIGN KEY (`harbour`) REFERENCES `harbours` (`code`) ON DELETE CASCADE
) ENGINE=InnoDB AUTO_INCREMENT=12;
CREATE TABLE `tags` (`id` int NOT NULL AUTO_INCREMENT PRIMARY KEY, `label` varchar(20) NOT NULL UNIQUE) ENGINE=InnoDB;
CREATE TABLE `sailing_tags` (
  `sailing_id` bigint(20) unsigned NOT NULL,
  `tag_id` int NOT NULL,
  `since` date DEFAULT NULL,
  PRIMARY KEY (`sailing_id`,`tag_id`),
  FOREIGN KEY (`sailing_id`) REFERENCES `sailings` (`id`) ON DELETE CASCADE,
  FOREIGN KEY (`tag_id`) REFERENCES `tags` (`id`) ON DELETE CASCADE
) ENGINE=InnoDB;

LOCK TABLES `harbours` WRITE;
/*!40000 ALTER TABLE `harbours` DISABLE KEYS */;
INSERT INTO `harbours` VALUES
('KSH','Kestrel Head; (north), ''old''',NULL,'fuel,water','{\"berths\": [1, 2], \"note\": null}',0x4B5348,b'1'),
('WKH','Wick\nHaven\\Quay','KSH','',NULL,NULL,b'0'),
('SKR','Skerry "Point" — café','XXX','ice','[]',x'00FF',1);
/*!40000 ALTER TABLE `harbours` ENABLE KEYS */;
UNLOCK TABLES;

INSERT INTO sailings (id, harbour, departs_at, gates_close, price, seats) VALUES (7,'KSH','2026-06-14 09:30:00.250','09:20:00',12.50,40),(9,'WKH','2026-06-14 10:30:00',NULL,-8,0);
INSERT INTO sailings SET harbour = 'KSH', departs_at = NOW(3), price = 1e1, seats = 1 + 2;
INSERT INTO tags (label) VALUES ('night'), ('slow');
REPLACE INTO sailing_tags VALUES (7, 1, '2026-01-01'), (7, 2, NULL);
INSERT INTO tags (label) SELECT CONCAT(label, '!') FROM tags;
UPDATE tags SET label = 'quick' WHERE id = 2;
DELETE FROM tags WHERE id > 2;
