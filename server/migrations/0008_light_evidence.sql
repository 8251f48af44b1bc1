CREATE TABLE `figures` (
	`sample_id` varchar(26) NOT NULL,
	`body` json,
	`shared` int NOT NULL,
	`form` int NOT NULL,
	`watts` double,
	`efficiency` double,
	`idle` double,
	`mass_per_watt` double,
	`short_claims` int NOT NULL,
	`judged` boolean NOT NULL,
	CONSTRAINT `figures_sample_id` PRIMARY KEY(`sample_id`)
);
--> statement-breakpoint
CREATE TABLE `revisions` (
	`owner` varchar(26) NOT NULL,
	`part` varchar(24) NOT NULL,
	`revision` int NOT NULL,
	CONSTRAINT `revisions_owner_part_pk` PRIMARY KEY(`owner`,`part`)
);
--> statement-breakpoint
CREATE TABLE `turns` (
	`what` varchar(40) NOT NULL,
	`owner` varchar(26) NOT NULL,
	`until_at` datetime(3) NOT NULL,
	CONSTRAINT `turns_what` PRIMARY KEY(`what`)
);
--> statement-breakpoint
DROP INDEX `samples_by_update` ON `samples`;--> statement-breakpoint
ALTER TABLE `samples` ADD `words` varchar(320) DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `samples` ADD `kind` varchar(12) DEFAULT 'wall' NOT NULL;--> statement-breakpoint
ALTER TABLE `samples` ADD `stale` boolean DEFAULT true NOT NULL;--> statement-breakpoint
ALTER TABLE `figures` ADD CONSTRAINT `figures_sample_id_samples_id_fk` FOREIGN KEY (`sample_id`) REFERENCES `samples`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `figures_by_shared` ON `figures` (`shared`);--> statement-breakpoint
CREATE INDEX `figures_by_form` ON `figures` (`form`);--> statement-breakpoint
CREATE INDEX `figures_by_watts` ON `figures` (`watts`);--> statement-breakpoint
CREATE INDEX `figures_by_efficiency` ON `figures` (`efficiency`);--> statement-breakpoint
CREATE INDEX `figures_by_idle` ON `figures` (`idle`);--> statement-breakpoint
CREATE INDEX `figures_by_mass` ON `figures` (`mass_per_watt`);--> statement-breakpoint
CREATE INDEX `figures_by_short` ON `figures` (`short_claims`);--> statement-breakpoint
CREATE INDEX `samples_by_words` ON `samples` (`words`);--> statement-breakpoint
CREATE INDEX `samples_by_stale` ON `samples` (`stale`);--> statement-breakpoint
CREATE INDEX `samples_by_update` ON `samples` (`updated_at`,`id`,`words`,`kind`);--> statement-breakpoint
UPDATE `samples` JOIN `models` ON `models`.`id` = `samples`.`model_id` SET `samples`.`words` = LOWER(CONCAT_WS(' ', `models`.`maker`, `models`.`model`, `samples`.`serial`, RIGHT(`samples`.`id`, 6))), `samples`.`kind` = `models`.`kind`;--> statement-breakpoint
INSERT IGNORE INTO `figures` (`sample_id`, `shared`, `form`, `short_claims`, `judged`) SELECT `id`, -1, 0, 0, true FROM `samples`;