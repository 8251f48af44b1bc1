CREATE TABLE `leases` (
	`instrument_id` varchar(26) NOT NULL,
	`run_id` varchar(26) NOT NULL,
	CONSTRAINT `leases_instrument_id` PRIMARY KEY(`instrument_id`)
);
--> statement-breakpoint
CREATE TABLE `run_asks` (
	`id` varchar(26) NOT NULL,
	`run_id` varchar(26) NOT NULL,
	`body` json NOT NULL,
	`asked_at` datetime(3) NOT NULL,
	`done_at` datetime(3),
	CONSTRAINT `run_asks_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `run_parts` (
	`id` varchar(26) NOT NULL,
	`run_id` varchar(26) NOT NULL,
	`step_id` varchar(26) NOT NULL,
	`body` json NOT NULL,
	CONSTRAINT `run_parts_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `run_sheets` (
	`id` varchar(26) NOT NULL,
	`sample_id` varchar(26) NOT NULL,
	`method_id` varchar(40) NOT NULL,
	`rig_id` varchar(26) NOT NULL,
	`title` varchar(120) NOT NULL,
	`steps` json NOT NULL,
	`version` int NOT NULL DEFAULT 1,
	`created_at` datetime(3) NOT NULL,
	CONSTRAINT `run_sheets_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `sheet_runs` (
	`id` varchar(26) NOT NULL,
	`sheet_id` varchar(26) NOT NULL,
	`sample_id` varchar(26) NOT NULL,
	`rig_id` varchar(26) NOT NULL,
	`title` varchar(120) NOT NULL,
	`person` varchar(60) NOT NULL,
	`state` varchar(12) NOT NULL,
	`says` varchar(600) NOT NULL,
	`step_id` varchar(26),
	`steps` json NOT NULL,
	`outcomes` json NOT NULL,
	`progress` json,
	`watched` boolean NOT NULL,
	`here_at` datetime(3) NOT NULL,
	`alive_at` datetime(3) NOT NULL,
	`started_at` datetime(3) NOT NULL,
	`ended_at` datetime(3),
	CONSTRAINT `sheet_runs_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
ALTER TABLE `instruments` ADD `calibrated_on` varchar(10);--> statement-breakpoint
ALTER TABLE `instruments` ADD `ratings` json;--> statement-breakpoint
ALTER TABLE `readings` ADD `overdue` boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE `rigs` ADD `drives` json;--> statement-breakpoint
ALTER TABLE `samples` ADD `limits` json;--> statement-breakpoint
ALTER TABLE `leases` ADD CONSTRAINT `leases_instrument_id_instruments_id_fk` FOREIGN KEY (`instrument_id`) REFERENCES `instruments`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `leases` ADD CONSTRAINT `leases_run_id_sheet_runs_id_fk` FOREIGN KEY (`run_id`) REFERENCES `sheet_runs`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `run_asks` ADD CONSTRAINT `run_asks_run_id_sheet_runs_id_fk` FOREIGN KEY (`run_id`) REFERENCES `sheet_runs`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `run_parts` ADD CONSTRAINT `run_parts_run_id_sheet_runs_id_fk` FOREIGN KEY (`run_id`) REFERENCES `sheet_runs`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `run_sheets` ADD CONSTRAINT `run_sheets_sample_id_samples_id_fk` FOREIGN KEY (`sample_id`) REFERENCES `samples`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `run_sheets` ADD CONSTRAINT `run_sheets_rig_id_rigs_id_fk` FOREIGN KEY (`rig_id`) REFERENCES `rigs`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `sheet_runs` ADD CONSTRAINT `sheet_runs_sheet_id_run_sheets_id_fk` FOREIGN KEY (`sheet_id`) REFERENCES `run_sheets`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `sheet_runs` ADD CONSTRAINT `sheet_runs_sample_id_samples_id_fk` FOREIGN KEY (`sample_id`) REFERENCES `samples`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `sheet_runs` ADD CONSTRAINT `sheet_runs_rig_id_rigs_id_fk` FOREIGN KEY (`rig_id`) REFERENCES `rigs`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `run_asks_by_run` ON `run_asks` (`run_id`,`done_at`);--> statement-breakpoint
CREATE INDEX `run_parts_by_step` ON `run_parts` (`run_id`,`step_id`);--> statement-breakpoint
CREATE INDEX `run_sheets_by_sample` ON `run_sheets` (`sample_id`);--> statement-breakpoint
CREATE INDEX `sheet_runs_by_sheet` ON `sheet_runs` (`sheet_id`);--> statement-breakpoint
CREATE INDEX `sheet_runs_by_state` ON `sheet_runs` (`state`);--> statement-breakpoint
UPDATE `readings` JOIN `instruments` ON `instruments`.`id` = `readings`.`instrument_id` SET `readings`.`overdue` = true WHERE `instruments`.`calibration_due` < DATE_FORMAT(`readings`.`taken_at`, '%Y-%m-%d');
