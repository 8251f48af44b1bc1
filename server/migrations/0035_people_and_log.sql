CREATE TABLE `access_tokens` (
	`digest` varchar(64) NOT NULL,
	`id` varchar(26) NOT NULL,
	`person_id` varchar(26) NOT NULL,
	`name` varchar(60) NOT NULL,
	`role` varchar(10) NOT NULL,
	`made_at` datetime(3) NOT NULL,
	`ends_at` datetime(3) NOT NULL,
	`seen_at` datetime(3),
	CONSTRAINT `access_tokens_digest` PRIMARY KEY(`digest`),
	CONSTRAINT `access_tokens_id_unique` UNIQUE(`id`)
);
--> statement-breakpoint
CREATE TABLE `invitations` (
	`digest` varchar(64) NOT NULL,
	`id` varchar(26) NOT NULL,
	`kind` varchar(8) NOT NULL,
	`role` varchar(10) NOT NULL,
	`note` varchar(80) NOT NULL,
	`person_id` varchar(26),
	`made_by` varchar(60),
	`ends_at` datetime(3) NOT NULL,
	CONSTRAINT `invitations_digest` PRIMARY KEY(`digest`),
	CONSTRAINT `invitations_id_unique` UNIQUE(`id`)
);
--> statement-breakpoint
CREATE TABLE `lab_secrets` (
	`name` varchar(40) NOT NULL,
	`value` varchar(200) NOT NULL,
	CONSTRAINT `lab_secrets_name` PRIMARY KEY(`name`)
);
--> statement-breakpoint
CREATE TABLE `log_entries` (
	`id` varchar(26) NOT NULL,
	`at` datetime(3) NOT NULL,
	`person_id` varchar(26),
	`who` varchar(80) NOT NULL,
	`through` varchar(8) NOT NULL,
	`key_id` varchar(26),
	`operation` varchar(40) NOT NULL,
	`subject` varchar(64),
	`sample_id` varchar(26),
	`body` mediumtext,
	`whole` boolean NOT NULL DEFAULT true,
	`request` varchar(64),
	`undoes` varchar(26),
	`sealed` boolean NOT NULL DEFAULT false,
	CONSTRAINT `log_entries_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `log_seals` (
	`place` bigint NOT NULL,
	`entry_id` varchar(26) NOT NULL,
	`seal` varchar(64) NOT NULL,
	CONSTRAINT `log_seals_place` PRIMARY KEY(`place`),
	CONSTRAINT `log_seals_by_entry` UNIQUE(`entry_id`)
);
--> statement-breakpoint
CREATE TABLE `log_things` (
	`thing_id` varchar(26) NOT NULL,
	`entry_id` varchar(26) NOT NULL,
	CONSTRAINT `log_things_thing_id_entry_id_pk` PRIMARY KEY(`thing_id`,`entry_id`)
);
--> statement-breakpoint
CREATE TABLE `people` (
	`id` varchar(26) NOT NULL,
	`sign_in` varchar(120) NOT NULL,
	`name` varchar(60) NOT NULL,
	`role` varchar(10) NOT NULL,
	`password` varchar(200),
	`factor` varchar(64),
	`next_factor` varchar(64),
	`factor_step` int NOT NULL DEFAULT 0,
	`provided` varchar(300),
	`disabled` boolean NOT NULL DEFAULT false,
	`seen_at` datetime(3),
	`created_at` datetime(3) NOT NULL,
	`version` int NOT NULL DEFAULT 1,
	CONSTRAINT `people_id` PRIMARY KEY(`id`),
	CONSTRAINT `people_sign_in_unique` UNIQUE(`sign_in`),
	CONSTRAINT `people_provided_unique` UNIQUE(`provided`)
);
--> statement-breakpoint
CREATE TABLE `recovery_codes` (
	`digest` varchar(64) NOT NULL,
	`person_id` varchar(26) NOT NULL,
	CONSTRAINT `recovery_codes_digest` PRIMARY KEY(`digest`)
);
--> statement-breakpoint
CREATE TABLE `sessions` (
	`digest` varchar(64) NOT NULL,
	`id` varchar(26) NOT NULL,
	`person_id` varchar(26) NOT NULL,
	`made_at` datetime(3) NOT NULL,
	`seen_at` datetime(3) NOT NULL,
	`ends_at` datetime(3) NOT NULL,
	`address` varchar(64) NOT NULL,
	`browser` varchar(200) NOT NULL,
	CONSTRAINT `sessions_digest` PRIMARY KEY(`digest`),
	CONSTRAINT `sessions_id_unique` UNIQUE(`id`)
);
--> statement-breakpoint
CREATE TABLE `sign_in_tries` (
	`id` varchar(26) NOT NULL,
	`account` varchar(120) NOT NULL,
	`address` varchar(64) NOT NULL,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `sign_in_tries_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
ALTER TABLE `cable_runs` ADD `author` varchar(26);--> statement-breakpoint
ALTER TABLE `trial_runs` ADD `author` varchar(26);--> statement-breakpoint
ALTER TABLE `attachments` ADD `author` varchar(26);--> statement-breakpoint
ALTER TABLE `captures` ADD `author` varchar(26);--> statement-breakpoint
ALTER TABLE `read_outs` ADD `author` varchar(26);--> statement-breakpoint
ALTER TABLE `readings` ADD `author` varchar(26);--> statement-breakpoint
ALTER TABLE `runs` ADD `author` varchar(26);--> statement-breakpoint
ALTER TABLE `statements` ADD `author` varchar(26);--> statement-breakpoint
ALTER TABLE `reports` ADD `author` varchar(26);--> statement-breakpoint
ALTER TABLE `sheet_runs` ADD `author` varchar(26);--> statement-breakpoint
ALTER TABLE `safety_checks` ADD `author` varchar(26);--> statement-breakpoint
ALTER TABLE `access_tokens` ADD CONSTRAINT `access_tokens_person_id_people_id_fk` FOREIGN KEY (`person_id`) REFERENCES `people`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `invitations` ADD CONSTRAINT `invitations_person_id_people_id_fk` FOREIGN KEY (`person_id`) REFERENCES `people`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `recovery_codes` ADD CONSTRAINT `recovery_codes_person_id_people_id_fk` FOREIGN KEY (`person_id`) REFERENCES `people`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `sessions` ADD CONSTRAINT `sessions_person_id_people_id_fk` FOREIGN KEY (`person_id`) REFERENCES `people`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `access_tokens_by_person` ON `access_tokens` (`person_id`);--> statement-breakpoint
CREATE INDEX `log_entries_by_seal` ON `log_entries` (`sealed`,`id`);--> statement-breakpoint
CREATE INDEX `log_entries_by_person` ON `log_entries` (`person_id`,`id`);--> statement-breakpoint
CREATE INDEX `log_entries_by_sample` ON `log_entries` (`sample_id`,`id`);--> statement-breakpoint
CREATE INDEX `log_entries_by_subject` ON `log_entries` (`subject`,`id`);--> statement-breakpoint
CREATE INDEX `log_entries_by_operation` ON `log_entries` (`operation`,`id`);--> statement-breakpoint
CREATE INDEX `recovery_codes_by_person` ON `recovery_codes` (`person_id`);--> statement-breakpoint
CREATE INDEX `sessions_by_person` ON `sessions` (`person_id`);--> statement-breakpoint
CREATE INDEX `sessions_by_end` ON `sessions` (`ends_at`);--> statement-breakpoint
CREATE INDEX `sign_in_tries_by_account` ON `sign_in_tries` (`account`,`at`);--> statement-breakpoint
CREATE INDEX `sign_in_tries_by_address` ON `sign_in_tries` (`address`,`at`);