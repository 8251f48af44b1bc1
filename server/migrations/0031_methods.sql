CREATE TABLE `method_versions` (
	`method_id` varchar(26) NOT NULL,
	`version` int NOT NULL,
	`body` json NOT NULL,
	`note` varchar(400) NOT NULL,
	`created_at` datetime(3) NOT NULL,
	CONSTRAINT `method_versions_method_id_version_pk` PRIMARY KEY(`method_id`,`version`)
);
--> statement-breakpoint
CREATE TABLE `methods` (
	`id` varchar(26) NOT NULL,
	`version` int NOT NULL DEFAULT 1,
	`retired` boolean NOT NULL DEFAULT false,
	CONSTRAINT `methods_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
ALTER TABLE `run_sheets` ADD `method_version` int;--> statement-breakpoint
ALTER TABLE `method_versions` ADD CONSTRAINT `method_versions_method_id_methods_id_fk` FOREIGN KEY (`method_id`) REFERENCES `methods`(`id`) ON DELETE no action ON UPDATE no action;