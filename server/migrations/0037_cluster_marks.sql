CREATE TABLE `commits` (
	`id` varchar(26) NOT NULL,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `commits_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE INDEX `commits_by_time` ON `commits` (`at`);