ALTER TABLE `attachments` ADD `caption` varchar(200) DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `attachments` ADD `in_report` boolean DEFAULT false NOT NULL;