CREATE TABLE `searches` (
	`id` varchar(26) NOT NULL,
	`title` varchar(60) NOT NULL,
	`query` varchar(300) NOT NULL,
	`created_at` datetime(3) NOT NULL,
	CONSTRAINT `searches_id` PRIMARY KEY(`id`)
);
