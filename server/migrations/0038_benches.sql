CREATE TABLE `copies` (
	`owner` varchar(40) NOT NULL,
	`bench` varchar(40) NOT NULL,
	`url` varchar(240) NOT NULL,
	`alive_at` datetime(3) NOT NULL,
	CONSTRAINT `copies_owner` PRIMARY KEY(`owner`)
);
--> statement-breakpoint
ALTER TABLE `instruments` ADD `bench` varchar(40) DEFAULT '' NOT NULL;