ALTER TABLE `samples` ADD `demo` varchar(5) DEFAULT '' NOT NULL;--> statement-breakpoint
CREATE INDEX `samples_by_demo` ON `samples` (`demo`);