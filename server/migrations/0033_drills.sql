CREATE TABLE `drills` (
	`id` varchar(26) NOT NULL,
	`person` varchar(60) NOT NULL,
	`level` varchar(20) NOT NULL,
	`seed` int NOT NULL,
	`state` varchar(12) NOT NULL,
	`drawn` json NOT NULL,
	`budget` int NOT NULL,
	`good` json NOT NULL,
	`stated` json,
	`result` json,
	`parts` json NOT NULL,
	`started_at` datetime(3) NOT NULL,
	`ended_at` datetime(3),
	CONSTRAINT `drills_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE INDEX `drills_by_state` ON `drills` (`state`);