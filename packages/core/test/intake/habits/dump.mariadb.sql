-- MariaDB dump 10.19  Distrib 10.11.6-MariaDB
--
-- Host: localhost    Database: ferries

/*!40101 SET @OLD_CHARACTER_SET_CLIENT=@@CHARACTER_SET_CLIENT */;
/*!40014 SET @OLD_FOREIGN_KEY_CHECKS=@@FOREIGN_KEY_CHECKS, FOREIGN_KEY_CHECKS=0 */;

DROP TABLE IF EXISTS `harbours`;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
CREATE TABLE `harbours` (
  `id` int(10) unsigned NOT NULL AUTO_INCREMENT,
  `name` varchar(80) NOT NULL DEFAULT 'it\'s; unnamed',
  `opened` tinyint(1) NOT NULL DEFAULT 0,
  `changed_at` timestamp NOT NULL DEFAULT current_timestamp() ON UPDATE current_timestamp(),
  PRIMARY KEY (`id`) USING BTREE,
  UNIQUE KEY `by_name` (`name`) USING BTREE,
  KEY `by_open` (`opened`,`name`(10))
) ENGINE=InnoDB AUTO_INCREMENT=3 DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_general_ci COMMENT='Where ferries call';

LOCK TABLES `harbours` WRITE;
/*!40000 ALTER TABLE `harbours` DISABLE KEYS */;
INSERT INTO `harbours` VALUES
(1,'Kestrel Head; north',1,'2026-01-01 09:30:00'),
(2,'O\'Neill\\Quay',0,'2026-01-02 09:30:00');
/*!40000 ALTER TABLE `harbours` ENABLE KEYS */;
UNLOCK TABLES;

/*!50003 SET sql_mode = 'STRICT_TRANS_TABLES' */ ;
DELIMITER ;;
/*!50003 CREATE*/ /*!50003 TRIGGER `opened_first` BEFORE INSERT ON `harbours`
FOR EACH ROW BEGIN
  IF NEW.opened IS NULL THEN SET NEW.opened = 0; END IF;
END */;;
DELIMITER ;

DROP TABLE IF EXISTS `routes`;
CREATE TABLE `routes` (
  `id` int(10) unsigned NOT NULL AUTO_INCREMENT,
  `origin_id` int(10) unsigned NOT NULL,
  `fare` decimal(8,2) NOT NULL DEFAULT 0.00 CHECK (`fare` >= 0),
  PRIMARY KEY (`id`),
  CONSTRAINT `routes_origin` FOREIGN KEY (`origin_id`) REFERENCES `harbours` (`id`) ON DELETE CASCADE ON UPDATE CASCADE
) ENGINE=InnoDB;

SET @saved_cs_client     = @@character_set_client;
/*!50001 CREATE VIEW `open_harbours` AS SELECT
 1 AS `id`,
  1 AS `name` */;

DELIMITER $$
CREATE PROCEDURE `close_all`()
BEGIN
  DECLARE done INT DEFAULT 0;
  WHILE done < 1 DO
    UPDATE harbours SET opened = 0;
    SET done = CASE WHEN done = 0 THEN 1 ELSE 2 END;
  END WHILE;
END$$
CREATE FUNCTION `half`(x INT) RETURNS INT DETERMINISTIC
BEGIN
  RETURN x / 2;
END$$
DELIMITER ;

/*!50001 DROP VIEW IF EXISTS `open_harbours`*/;
/*!50001 CREATE ALGORITHM=UNDEFINED */
/*!50013 DEFINER=CURRENT_USER SQL SECURITY DEFINER */
/*!50001 VIEW `open_harbours` AS select `harbours`.`id` AS `id`,`harbours`.`name` AS `name` from `harbours` where `harbours`.`opened` = 1 */;
/*!40014 SET FOREIGN_KEY_CHECKS=@OLD_FOREIGN_KEY_CHECKS */;
-- Dump completed on 2026-01-03 10:00:00
