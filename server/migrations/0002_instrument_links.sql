CREATE TABLE `instrument_profiles` (
	`id` varchar(26) NOT NULL,
	`profile` json NOT NULL,
	`version` int NOT NULL DEFAULT 1,
	CONSTRAINT `instrument_profiles_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
ALTER TABLE `instruments` ADD `address` varchar(120);--> statement-breakpoint
ALTER TABLE `instruments` ADD `profile_id` varchar(60);