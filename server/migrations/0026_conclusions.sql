CREATE TABLE `conclusions` (
	`sample_id` varchar(26) NOT NULL,
	`lines` json NOT NULL,
	`version` int NOT NULL DEFAULT 1,
	`updated_at` datetime(3) NOT NULL,
	CONSTRAINT `conclusions_sample_id` PRIMARY KEY(`sample_id`)
);
--> statement-breakpoint
ALTER TABLE `conclusions` ADD CONSTRAINT `conclusions_sample_id_samples_id_fk` FOREIGN KEY (`sample_id`) REFERENCES `samples`(`id`) ON DELETE no action ON UPDATE no action;