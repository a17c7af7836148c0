CREATE TABLE 2fa_codes (id int PRIMARY KEY AUTO_INCREMENT, 1st_code varchar(9), `2nd code` varchar(9));
CREATE TABLE users (id int PRIMARY KEY AUTO_INCREMENT, paid int, password_digest varchar(90), otp_secret varchar(40), password_changed_at datetime, api_token varchar(64));
CREATE TABLE nodes (
  id int PRIMARY KEY AUTO_INCREMENT,
  parent int,
  owner varchar(20),
  owner_id int,
  nodes int,
  `key` varchar(9),
  `order` int,
  UNIQUE KEY (parent, `order`),
  FOREIGN KEY (parent) REFERENCES nodes (id),
  FOREIGN KEY (owner_id) REFERENCES users (id)
);
ALTER TABLE nodes ADD COLUMN userid int, ADD FOREIGN KEY (userid) REFERENCES users (id);
