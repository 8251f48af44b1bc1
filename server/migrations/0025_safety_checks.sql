CREATE TABLE `safety_checks` (
	`id` varchar(26) NOT NULL,
	`sample_id` varchar(26) NOT NULL,
	`kind` varchar(12) NOT NULL,
	`body` json NOT NULL,
	`taken_at` datetime(3) NOT NULL,
	`supersedes` varchar(26),
	`entered_at` datetime(3) NOT NULL,
	CONSTRAINT `safety_checks_id` PRIMARY KEY(`id`),
	CONSTRAINT `one_safety_check` UNIQUE(`supersedes`)
);
--> statement-breakpoint
ALTER TABLE `safety_checks` ADD CONSTRAINT `safety_checks_sample_id_samples_id_fk` FOREIGN KEY (`sample_id`) REFERENCES `samples`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `safety_checks` ADD CONSTRAINT `safety_checks_supersedes_safety_checks_id_fk` FOREIGN KEY (`supersedes`) REFERENCES `safety_checks`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `safety_checks_by_sample` ON `safety_checks` (`sample_id`,`taken_at`);