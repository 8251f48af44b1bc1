CREATE TABLE `capture_parts` (
	`capture_id` varchar(26) NOT NULL,
	`name` varchar(12) NOT NULL,
	`part` int NOT NULL,
	`bytes` mediumblob NOT NULL,
	CONSTRAINT `capture_parts_capture_id_name_part_pk` PRIMARY KEY(`capture_id`,`name`,`part`)
);
--> statement-breakpoint
CREATE TABLE `captures` (
	`id` varchar(26) NOT NULL,
	`sample_id` varchar(26) NOT NULL,
	`body` json NOT NULL,
	`point_id` varchar(26),
	`taken_at` datetime(3) NOT NULL,
	`supersedes` varchar(26),
	`entered_at` datetime(3) NOT NULL,
	CONSTRAINT `captures_id` PRIMARY KEY(`id`),
	CONSTRAINT `one_capture` UNIQUE(`supersedes`)
);
--> statement-breakpoint
ALTER TABLE `capture_parts` ADD CONSTRAINT `capture_parts_capture_id_captures_id_fk` FOREIGN KEY (`capture_id`) REFERENCES `captures`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `captures` ADD CONSTRAINT `captures_sample_id_samples_id_fk` FOREIGN KEY (`sample_id`) REFERENCES `samples`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `captures` ADD CONSTRAINT `captures_point_id_points_id_fk` FOREIGN KEY (`point_id`) REFERENCES `points`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `captures` ADD CONSTRAINT `captures_supersedes_captures_id_fk` FOREIGN KEY (`supersedes`) REFERENCES `captures`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `captures_by_sample` ON `captures` (`sample_id`,`taken_at`);