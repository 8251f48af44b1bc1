CREATE TABLE `devices` (
	`id` varchar(26) NOT NULL,
	`facts` json NOT NULL,
	`version` int NOT NULL DEFAULT 1,
	CONSTRAINT `devices_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `read_outs` (
	`id` varchar(26) NOT NULL,
	`sample_id` varchar(26) NOT NULL,
	`port` varchar(24) NOT NULL,
	`instrument_id` varchar(26) NOT NULL,
	`body` json NOT NULL,
	`taken_at` datetime(3) NOT NULL,
	`supersedes` varchar(26),
	`entered_at` datetime(3) NOT NULL,
	CONSTRAINT `read_outs_id` PRIMARY KEY(`id`),
	CONSTRAINT `one_read_out` UNIQUE(`supersedes`)
);
--> statement-breakpoint
CREATE TABLE `runs` (
	`id` varchar(26) NOT NULL,
	`sample_id` varchar(26) NOT NULL,
	`rig_id` varchar(26) NOT NULL,
	`device_id` varchar(26),
	`body` json NOT NULL,
	`taken_at` datetime(3) NOT NULL,
	`supersedes` varchar(26),
	`entered_at` datetime(3) NOT NULL,
	CONSTRAINT `runs_id` PRIMARY KEY(`id`),
	CONSTRAINT `one_run` UNIQUE(`supersedes`)
);
--> statement-breakpoint
ALTER TABLE `instruments` ADD `sees` json;--> statement-breakpoint
ALTER TABLE `points` ADD `override_reason` varchar(300);--> statement-breakpoint
ALTER TABLE `rigs` ADD `load_end_meter_id` varchar(26);--> statement-breakpoint
ALTER TABLE `rigs` ADD `elements` json;--> statement-breakpoint
ALTER TABLE `setups` ADD `purpose` varchar(12) DEFAULT 'efficiency' NOT NULL;--> statement-breakpoint
ALTER TABLE `read_outs` ADD CONSTRAINT `read_outs_sample_id_samples_id_fk` FOREIGN KEY (`sample_id`) REFERENCES `samples`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `read_outs` ADD CONSTRAINT `read_outs_instrument_id_instruments_id_fk` FOREIGN KEY (`instrument_id`) REFERENCES `instruments`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `read_outs` ADD CONSTRAINT `read_outs_supersedes_read_outs_id_fk` FOREIGN KEY (`supersedes`) REFERENCES `read_outs`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `runs` ADD CONSTRAINT `runs_sample_id_samples_id_fk` FOREIGN KEY (`sample_id`) REFERENCES `samples`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `runs` ADD CONSTRAINT `runs_rig_id_rigs_id_fk` FOREIGN KEY (`rig_id`) REFERENCES `rigs`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `runs` ADD CONSTRAINT `runs_device_id_devices_id_fk` FOREIGN KEY (`device_id`) REFERENCES `devices`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `runs` ADD CONSTRAINT `runs_supersedes_runs_id_fk` FOREIGN KEY (`supersedes`) REFERENCES `runs`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `read_outs_by_sample` ON `read_outs` (`sample_id`,`taken_at`);--> statement-breakpoint
CREATE INDEX `runs_by_sample` ON `runs` (`sample_id`,`taken_at`);--> statement-breakpoint
ALTER TABLE `rigs` ADD CONSTRAINT `rigs_load_end_meter_id_instruments_id_fk` FOREIGN KEY (`load_end_meter_id`) REFERENCES `instruments`(`id`) ON DELETE no action ON UPDATE no action;