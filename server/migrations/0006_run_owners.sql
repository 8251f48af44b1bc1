CREATE TABLE `console_loads` (
	`instrument_id` varchar(26) NOT NULL,
	`owner` varchar(40) NOT NULL,
	`alive_at` datetime(3) NOT NULL,
	CONSTRAINT `console_loads_instrument_id` PRIMARY KEY(`instrument_id`)
);
--> statement-breakpoint
CREATE TABLE `loads_off_latch` (
	`id` int NOT NULL,
	`offs` int NOT NULL,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `loads_off_latch_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
ALTER TABLE `sheet_runs` ADD `epoch` int DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `sheet_runs` ADD `owner` varchar(40);--> statement-breakpoint
ALTER TABLE `console_loads` ADD CONSTRAINT `console_loads_instrument_id_instruments_id_fk` FOREIGN KEY (`instrument_id`) REFERENCES `instruments`(`id`) ON DELETE no action ON UPDATE no action;