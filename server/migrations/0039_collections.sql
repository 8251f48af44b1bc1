CREATE TABLE `collection_people` (
	`collection_id` varchar(26) NOT NULL,
	`person_id` varchar(26) NOT NULL,
	CONSTRAINT `collection_people_collection_id_person_id_pk` PRIMARY KEY(`collection_id`,`person_id`)
);
--> statement-breakpoint
CREATE TABLE `collections` (
	`id` varchar(26) NOT NULL,
	`name` varchar(80) NOT NULL,
	`embargo` datetime(3),
	`version` int NOT NULL DEFAULT 1,
	CONSTRAINT `collections_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
ALTER TABLE `invitations` ADD `guest` boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE `people` ADD `guest` boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE `samples` ADD `collection_id` varchar(26);--> statement-breakpoint
ALTER TABLE `collection_people` ADD CONSTRAINT `collection_people_collection_id_collections_id_fk` FOREIGN KEY (`collection_id`) REFERENCES `collections`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `collection_people_by_person` ON `collection_people` (`person_id`);--> statement-breakpoint
ALTER TABLE `samples` ADD CONSTRAINT `samples_collection_id_collections_id_fk` FOREIGN KEY (`collection_id`) REFERENCES `collections`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `samples_by_collection` ON `samples` (`collection_id`);