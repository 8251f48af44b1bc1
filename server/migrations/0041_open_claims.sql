ALTER TABLE `figures` ADD `open_claims` int DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `figures` ADD `borderline_claims` int DEFAULT 0 NOT NULL;--> statement-breakpoint
CREATE INDEX `figures_by_open` ON `figures` (`open_claims`);--> statement-breakpoint
CREATE INDEX `figures_by_borderline` ON `figures` (`borderline_claims`);