CREATE TABLE `cable_runs` (
	`id` varchar(26) NOT NULL,
	`sample_id` varchar(26) NOT NULL,
	`kind` varchar(12) NOT NULL,
	`rig_id` varchar(26),
	`body` json NOT NULL,
	`taken_at` datetime(3) NOT NULL,
	`supersedes` varchar(26),
	`entered_at` datetime(3) NOT NULL,
	CONSTRAINT `cable_runs_id` PRIMARY KEY(`id`),
	CONSTRAINT `one_cable_run` UNIQUE(`supersedes`)
);
--> statement-breakpoint
CREATE TABLE `trial_runs` (
	`id` varchar(26) NOT NULL,
	`trial_id` varchar(26) NOT NULL,
	`body` json NOT NULL,
	`taken_at` datetime(3) NOT NULL,
	`supersedes` varchar(26),
	`entered_at` datetime(3) NOT NULL,
	CONSTRAINT `trial_runs_id` PRIMARY KEY(`id`),
	CONSTRAINT `one_trial_run` UNIQUE(`supersedes`)
);
--> statement-breakpoint
CREATE TABLE `trial_samples` (
	`id` varchar(26) NOT NULL,
	`trial_id` varchar(26) NOT NULL,
	`sample_id` varchar(26) NOT NULL,
	CONSTRAINT `trial_samples_id` PRIMARY KEY(`id`),
	CONSTRAINT `one_sample_a_trial` UNIQUE(`trial_id`,`sample_id`)
);
--> statement-breakpoint
CREATE TABLE `trials` (
	`id` varchar(26) NOT NULL,
	`body` json NOT NULL,
	`letters` json NOT NULL,
	`revealed_at` datetime(3),
	`key_opened_at` datetime(3),
	`version` int NOT NULL DEFAULT 1,
	`created_at` datetime(3) NOT NULL,
	CONSTRAINT `trials_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
ALTER TABLE `cable_runs` ADD CONSTRAINT `cable_runs_sample_id_samples_id_fk` FOREIGN KEY (`sample_id`) REFERENCES `samples`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `cable_runs` ADD CONSTRAINT `cable_runs_rig_id_rigs_id_fk` FOREIGN KEY (`rig_id`) REFERENCES `rigs`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `cable_runs` ADD CONSTRAINT `cable_runs_supersedes_cable_runs_id_fk` FOREIGN KEY (`supersedes`) REFERENCES `cable_runs`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `trial_runs` ADD CONSTRAINT `trial_runs_trial_id_trials_id_fk` FOREIGN KEY (`trial_id`) REFERENCES `trials`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `trial_runs` ADD CONSTRAINT `trial_runs_supersedes_trial_runs_id_fk` FOREIGN KEY (`supersedes`) REFERENCES `trial_runs`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `trial_samples` ADD CONSTRAINT `trial_samples_trial_id_trials_id_fk` FOREIGN KEY (`trial_id`) REFERENCES `trials`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `trial_samples` ADD CONSTRAINT `trial_samples_sample_id_samples_id_fk` FOREIGN KEY (`sample_id`) REFERENCES `samples`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `cable_runs_by_sample` ON `cable_runs` (`sample_id`,`taken_at`);--> statement-breakpoint
CREATE INDEX `trial_runs_by_trial` ON `trial_runs` (`trial_id`,`taken_at`);--> statement-breakpoint
CREATE INDEX `trials_by_sample` ON `trial_samples` (`sample_id`);