CREATE TABLE `trace_pieces` (
	`trace_id` varchar(26) NOT NULL,
	`channel` int NOT NULL,
	`stretch` int NOT NULL,
	`part` int NOT NULL,
	`bytes` mediumblob NOT NULL,
	CONSTRAINT `trace_pieces_trace_id_channel_stretch_part_pk` PRIMARY KEY(`trace_id`,`channel`,`stretch`,`part`)
);
--> statement-breakpoint
CREATE TABLE `traces` (
	`id` varchar(26) NOT NULL,
	`samples` int NOT NULL,
	`interval_s` double NOT NULL,
	`timed` boolean NOT NULL,
	`began` double,
	`channels` json NOT NULL,
	`facts` json NOT NULL,
	`named` boolean NOT NULL,
	`started_at` datetime(3) NOT NULL,
	CONSTRAINT `traces_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE INDEX `traces_to_sweep` ON `traces` (`named`,`started_at`);