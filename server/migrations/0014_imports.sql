ALTER TABLE `points` ADD `file_id` varchar(26);--> statement-breakpoint
CREATE INDEX `points_by_file` ON `points` (`file_id`);