ALTER TABLE `reports` ADD `leaves` json;--> statement-breakpoint
ALTER TABLE `reports` ADD `other_samples` json;