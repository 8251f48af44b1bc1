ALTER TABLE `readings` MODIFY COLUMN `u` double;--> statement-breakpoint
ALTER TABLE `samples` ADD `changes` int DEFAULT 0 NOT NULL;--> statement-breakpoint
UPDATE `readings` SET `u` = NULL WHERE `u` = 0 AND `value` <> 0 AND `quantity` NOT IN ('duration', 'power-factor');
