CREATE TABLE `comparisons` (
	`id` varchar(26) NOT NULL,
	`body` json NOT NULL,
	`members` json NOT NULL,
	`demo` boolean NOT NULL DEFAULT false,
	`version` int NOT NULL DEFAULT 1,
	`updated_at` datetime(3) NOT NULL,
	CONSTRAINT `comparisons_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `measures` (
	`sample_id` varchar(26) NOT NULL,
	`measure` varchar(30) NOT NULL,
	`condition_words` varchar(160) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL,
	`value` double NOT NULL,
	`u` double,
	`common` double NOT NULL,
	`meters` varchar(200) NOT NULL,
	`at` varchar(24),
	`below` boolean NOT NULL,
	CONSTRAINT `measures_sample_id_measure_condition_words_pk` PRIMARY KEY(`sample_id`,`measure`,`condition_words`)
);
--> statement-breakpoint
ALTER TABLE `figures` ADD `ports` int DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `figures` ADD `since` varchar(10);--> statement-breakpoint
ALTER TABLE `figures` ADD `measured` int DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `figures` ADD `unit_group` varchar(160) DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `figures` ADD `words` text;--> statement-breakpoint
ALTER TABLE `samples` ADD `labels` json;--> statement-breakpoint
ALTER TABLE `samples` ADD `archived` boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE `measures` ADD CONSTRAINT `measures_sample_id_samples_id_fk` FOREIGN KEY (`sample_id`) REFERENCES `samples`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `samples_by_archived` ON `samples` (`archived`);--> statement-breakpoint
CREATE INDEX `measures_by_condition` ON `measures` (`measure`,`condition_words`);--> statement-breakpoint
ALTER TABLE `figures` ADD FULLTEXT INDEX `figures_by_words` (`words`);