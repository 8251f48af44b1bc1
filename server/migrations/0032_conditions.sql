ALTER TABLE `run_sheets` ADD `conditions` json;--> statement-breakpoint
ALTER TABLE `sheet_runs` ADD `conditions` json;