ALTER TABLE `rigs` MODIFY COLUMN `output_volts_meter_id` varchar(26);--> statement-breakpoint
ALTER TABLE `rigs` MODIFY COLUMN `output_amps_meter_id` varchar(26);