CREATE TABLE `request_keys` (
	`digest` varchar(64) NOT NULL,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `request_keys_digest` PRIMARY KEY(`digest`)
);
--> statement-breakpoint
CREATE INDEX `request_keys_by_time` ON `request_keys` (`at`);