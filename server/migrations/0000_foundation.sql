CREATE TABLE `attachment_parts` (
	`attachment_id` varchar(26) NOT NULL,
	`part` int NOT NULL,
	`bytes` mediumblob NOT NULL,
	CONSTRAINT `attachment_parts_attachment_id_part_pk` PRIMARY KEY(`attachment_id`,`part`)
);
--> statement-breakpoint
CREATE TABLE `attachments` (
	`id` varchar(26) NOT NULL,
	`sample_id` varchar(26),
	`claim_id` varchar(26),
	`reading_id` varchar(26),
	`name` varchar(200) NOT NULL,
	`type` varchar(60) NOT NULL,
	`size` int NOT NULL,
	`sha256` varchar(64) NOT NULL,
	`thumbnail` mediumblob,
	`created_at` datetime(3) NOT NULL,
	CONSTRAINT `attachments_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `claims` (
	`id` varchar(26) NOT NULL,
	`model_id` varchar(26) NOT NULL,
	`promise` json NOT NULL,
	`duration` json NOT NULL,
	`printed` varchar(120) NOT NULL,
	`version` int NOT NULL DEFAULT 1,
	CONSTRAINT `claims_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `column_maps` (
	`header_hash` varchar(64) NOT NULL,
	`header_key` varchar(2000) NOT NULL,
	`plan` json NOT NULL,
	`used_at` datetime(3) NOT NULL,
	CONSTRAINT `column_maps_header_hash` PRIMARY KEY(`header_hash`)
);
--> statement-breakpoint
CREATE TABLE `instruments` (
	`id` varchar(26) NOT NULL,
	`name` varchar(80) NOT NULL,
	`class` varchar(40) NOT NULL,
	`firmware` varchar(40) NOT NULL,
	`calibration_due` varchar(10),
	`specs` json NOT NULL,
	`version` int NOT NULL DEFAULT 1,
	CONSTRAINT `instruments_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `models` (
	`id` varchar(26) NOT NULL,
	`maker` varchar(80) NOT NULL,
	`model` varchar(120) NOT NULL,
	`kind` varchar(12) NOT NULL,
	`facts` json NOT NULL,
	`version` int NOT NULL DEFAULT 1,
	CONSTRAINT `models_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `points` (
	`id` varchar(26) NOT NULL,
	`sample_id` varchar(26) NOT NULL,
	`setup_id` varchar(26),
	`mains` json NOT NULL,
	`load_fraction` double NOT NULL,
	`attached` varchar(20) NOT NULL,
	`evidence` varchar(12) NOT NULL,
	`rig_id` varchar(26) NOT NULL,
	`taken_at` datetime(3) NOT NULL,
	CONSTRAINT `points_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `profiles` (
	`id` varchar(26) NOT NULL,
	`settings` json NOT NULL,
	`version` int NOT NULL DEFAULT 1,
	CONSTRAINT `profiles_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `readings` (
	`id` varchar(26) NOT NULL,
	`point_id` varchar(26) NOT NULL,
	`quantity` varchar(20) NOT NULL,
	`place` varchar(12) NOT NULL,
	`port` varchar(24),
	`value` double,
	`u` double NOT NULL,
	`sample_count` int NOT NULL,
	`spread` double NOT NULL,
	`typed` varchar(60) NOT NULL,
	`instrument_id` varchar(26),
	`taken_at` datetime(3) NOT NULL,
	`source` varchar(260) NOT NULL,
	`supersedes` varchar(26),
	`entered_at` datetime(3) NOT NULL,
	CONSTRAINT `readings_id` PRIMARY KEY(`id`),
	CONSTRAINT `one_correction` UNIQUE(`supersedes`)
);
--> statement-breakpoint
CREATE TABLE `rigs` (
	`id` varchar(26) NOT NULL,
	`name` varchar(80) NOT NULL,
	`mains_meter_id` varchar(26) NOT NULL,
	`output_volts_meter_id` varchar(26) NOT NULL,
	`output_amps_meter_id` varchar(26) NOT NULL,
	`output_place` varchar(10) NOT NULL,
	`lead_ohms` double NOT NULL,
	`lead_u_ohms` double NOT NULL,
	`note` varchar(400) NOT NULL,
	`version` int NOT NULL DEFAULT 1,
	CONSTRAINT `rigs_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `samples` (
	`id` varchar(26) NOT NULL,
	`model_id` varchar(26) NOT NULL,
	`serial` varchar(80) NOT NULL,
	`facts` json NOT NULL,
	`figures` json,
	`version` int NOT NULL DEFAULT 1,
	`created_at` datetime(3) NOT NULL,
	`updated_at` datetime(3) NOT NULL,
	CONSTRAINT `samples_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `setups` (
	`id` varchar(26) NOT NULL,
	`sample_id` varchar(26) NOT NULL,
	`name` varchar(80) NOT NULL,
	`outputs` json NOT NULL,
	`evidence` varchar(12) NOT NULL,
	`rig_id` varchar(26) NOT NULL,
	`nameplate_class` varchar(20),
	`version` int NOT NULL DEFAULT 1,
	CONSTRAINT `setups_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
ALTER TABLE `attachment_parts` ADD CONSTRAINT `attachment_parts_attachment_id_attachments_id_fk` FOREIGN KEY (`attachment_id`) REFERENCES `attachments`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `attachments` ADD CONSTRAINT `attachments_sample_id_samples_id_fk` FOREIGN KEY (`sample_id`) REFERENCES `samples`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `attachments` ADD CONSTRAINT `attachments_claim_id_claims_id_fk` FOREIGN KEY (`claim_id`) REFERENCES `claims`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `attachments` ADD CONSTRAINT `attachments_reading_id_readings_id_fk` FOREIGN KEY (`reading_id`) REFERENCES `readings`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `claims` ADD CONSTRAINT `claims_model_id_models_id_fk` FOREIGN KEY (`model_id`) REFERENCES `models`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `points` ADD CONSTRAINT `points_sample_id_samples_id_fk` FOREIGN KEY (`sample_id`) REFERENCES `samples`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `points` ADD CONSTRAINT `points_setup_id_setups_id_fk` FOREIGN KEY (`setup_id`) REFERENCES `setups`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `points` ADD CONSTRAINT `points_rig_id_rigs_id_fk` FOREIGN KEY (`rig_id`) REFERENCES `rigs`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `readings` ADD CONSTRAINT `readings_point_id_points_id_fk` FOREIGN KEY (`point_id`) REFERENCES `points`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `readings` ADD CONSTRAINT `readings_instrument_id_instruments_id_fk` FOREIGN KEY (`instrument_id`) REFERENCES `instruments`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `readings` ADD CONSTRAINT `readings_supersedes_readings_id_fk` FOREIGN KEY (`supersedes`) REFERENCES `readings`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `rigs` ADD CONSTRAINT `rigs_mains_meter_id_instruments_id_fk` FOREIGN KEY (`mains_meter_id`) REFERENCES `instruments`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `rigs` ADD CONSTRAINT `rigs_output_volts_meter_id_instruments_id_fk` FOREIGN KEY (`output_volts_meter_id`) REFERENCES `instruments`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `rigs` ADD CONSTRAINT `rigs_output_amps_meter_id_instruments_id_fk` FOREIGN KEY (`output_amps_meter_id`) REFERENCES `instruments`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `samples` ADD CONSTRAINT `samples_model_id_models_id_fk` FOREIGN KEY (`model_id`) REFERENCES `models`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `setups` ADD CONSTRAINT `setups_sample_id_samples_id_fk` FOREIGN KEY (`sample_id`) REFERENCES `samples`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `setups` ADD CONSTRAINT `setups_rig_id_rigs_id_fk` FOREIGN KEY (`rig_id`) REFERENCES `rigs`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `attachments_by_sample` ON `attachments` (`sample_id`);--> statement-breakpoint
CREATE INDEX `attachments_by_claim` ON `attachments` (`claim_id`);--> statement-breakpoint
CREATE INDEX `attachments_by_reading` ON `attachments` (`reading_id`);--> statement-breakpoint
CREATE INDEX `claims_by_model` ON `claims` (`model_id`);--> statement-breakpoint
CREATE INDEX `models_by_name` ON `models` (`maker`,`model`);--> statement-breakpoint
CREATE INDEX `models_by_kind` ON `models` (`kind`);--> statement-breakpoint
CREATE INDEX `points_by_sample` ON `points` (`sample_id`,`taken_at`);--> statement-breakpoint
CREATE INDEX `readings_by_point` ON `readings` (`point_id`);--> statement-breakpoint
CREATE INDEX `samples_by_model` ON `samples` (`model_id`);--> statement-breakpoint
CREATE INDEX `samples_by_update` ON `samples` (`updated_at`);--> statement-breakpoint
CREATE INDEX `setups_by_sample` ON `setups` (`sample_id`);