CREATE TABLE `presence` (
	`tab` varchar(40) NOT NULL,
	`person_id` varchar(26) NOT NULL,
	`name` varchar(60) NOT NULL,
	`sample_id` varchar(26),
	`place` varchar(80) NOT NULL,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `presence_tab` PRIMARY KEY(`tab`)
);
--> statement-breakpoint
CREATE TABLE `remarks` (
	`id` varchar(26) NOT NULL,
	`sample_id` varchar(26) NOT NULL,
	`about` varchar(8) NOT NULL,
	`about_id` varchar(26) NOT NULL,
	`kind` varchar(8) NOT NULL,
	`text` varchar(2000) NOT NULL,
	`mentions` json NOT NULL,
	`answers` varchar(26),
	`who` varchar(80) NOT NULL,
	`author` varchar(26),
	`made_at` datetime(3) NOT NULL,
	CONSTRAINT `remarks_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
ALTER TABLE `remarks` ADD CONSTRAINT `remarks_sample_id_samples_id_fk` FOREIGN KEY (`sample_id`) REFERENCES `samples`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `presence_by_time` ON `presence` (`at`);--> statement-breakpoint
CREATE INDEX `remarks_by_sample` ON `remarks` (`sample_id`,`id`);--> statement-breakpoint
CREATE INDEX `remarks_by_thing` ON `remarks` (`about_id`);--> statement-breakpoint
CREATE INDEX `remarks_by_question` ON `remarks` (`answers`);--> statement-breakpoint
CREATE INDEX `remarks_by_kind` ON `remarks` (`kind`,`id`);--> statement-breakpoint
CREATE INDEX `log_entries_by_time` ON `log_entries` (`at`);