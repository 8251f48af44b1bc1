CREATE TABLE `limit_sets` (
	`id` varchar(26) NOT NULL,
	`body` json NOT NULL,
	`version` int NOT NULL DEFAULT 1,
	CONSTRAINT `limit_sets_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `statements` (
	`id` varchar(26) NOT NULL,
	`sample_id` varchar(26) NOT NULL,
	`setup_id` varchar(26),
	`mains` json NOT NULL,
	`taken` json NOT NULL,
	`stated_at` datetime(3) NOT NULL,
	CONSTRAINT `statements_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
ALTER TABLE `points` ADD `taken` json;--> statement-breakpoint
ALTER TABLE `setups` ADD `class_reason` varchar(300);--> statement-breakpoint
ALTER TABLE `statements` ADD CONSTRAINT `statements_sample_id_samples_id_fk` FOREIGN KEY (`sample_id`) REFERENCES `samples`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `statements` ADD CONSTRAINT `statements_setup_id_setups_id_fk` FOREIGN KEY (`setup_id`) REFERENCES `setups`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `statements_by_sample` ON `statements` (`sample_id`);