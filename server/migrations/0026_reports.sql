CREATE TABLE `conclusions` (
	`sample_id` varchar(26) NOT NULL,
	`lines` json NOT NULL,
	`version` int NOT NULL DEFAULT 1,
	`updated_at` datetime(3) NOT NULL,
	CONSTRAINT `conclusions_sample_id` PRIMARY KEY(`sample_id`)
);
--> statement-breakpoint
CREATE TABLE `report_parts` (
	`report_id` varchar(26) NOT NULL,
	`what` varchar(8) NOT NULL,
	`part` int NOT NULL,
	`bytes` mediumblob NOT NULL,
	CONSTRAINT `report_parts_report_id_what_part_pk` PRIMARY KEY(`report_id`,`what`,`part`)
);
--> statement-breakpoint
CREATE TABLE `reports` (
	`id` varchar(26) NOT NULL,
	`sample_id` varchar(26) NOT NULL,
	`code` varchar(19) NOT NULL,
	`hash` varchar(64) NOT NULL,
	`pdf_hash` varchar(64) NOT NULL,
	`kind` varchar(12) NOT NULL,
	`language` varchar(2) NOT NULL,
	`title` varchar(240) NOT NULL,
	`person` varchar(80) NOT NULL,
	`amends` varchar(26),
	`reason` varchar(1000) NOT NULL,
	`fate` varchar(20),
	`changes` json NOT NULL,
	`size` int NOT NULL,
	`issued_at` datetime(3) NOT NULL,
	CONSTRAINT `reports_id` PRIMARY KEY(`id`),
	CONSTRAINT `one_report_a_code` UNIQUE(`code`),
	CONSTRAINT `one_amendment` UNIQUE(`amends`)
);
--> statement-breakpoint
ALTER TABLE `conclusions` ADD CONSTRAINT `conclusions_sample_id_samples_id_fk` FOREIGN KEY (`sample_id`) REFERENCES `samples`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `report_parts` ADD CONSTRAINT `report_parts_report_id_reports_id_fk` FOREIGN KEY (`report_id`) REFERENCES `reports`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `reports` ADD CONSTRAINT `reports_sample_id_samples_id_fk` FOREIGN KEY (`sample_id`) REFERENCES `samples`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `reports` ADD CONSTRAINT `reports_amends_reports_id_fk` FOREIGN KEY (`amends`) REFERENCES `reports`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `reports_by_sample` ON `reports` (`sample_id`,`issued_at`);--> statement-breakpoint
CREATE INDEX `reports_by_day` ON `reports` (`issued_at`);