INSERT IGNORE INTO `traces` (`id`, `samples`, `interval_s`, `timed`, `began`, `channels`, `facts`, `named`, `started_at`)
SELECT `c`.`id`, JSON_VALUE(`c`.`body`, '$.samples'), JSON_VALUE(`c`.`body`, '$.interval'), false, NULL,
  CASE JSON_VALUE(`c`.`body`, '$.kind')
    WHEN 'waveform' THEN '[{"name":"volts","quantity":"voltage","unit":"V"},{"name":"amps","quantity":"current","unit":"A"}]'
    WHEN 'inrush' THEN '[{"name":"amps","quantity":"current","unit":"A"}]'
    WHEN 'idle' THEN '[{"name":"watts","quantity":"power","unit":"W"}]'
    WHEN 'sweep' THEN '[{"name":"supply","quantity":"voltage","unit":"V"},{"name":"volts","quantity":"voltage","unit":"V"}]'
    ELSE '[{"name":"volts","quantity":"voltage","unit":"V"}]' END,
  '{"bandwidth":null,"envelope":false,"coupling":null}', true, `c`.`entered_at`
FROM `captures` `c` WHERE EXISTS (SELECT 1 FROM `capture_parts` `p` WHERE `p`.`capture_id` = `c`.`id`);
--> statement-breakpoint
INSERT IGNORE INTO `trace_pieces` (`trace_id`, `channel`, `stretch`, `part`, `bytes`)
SELECT `p`.`capture_id`,
  CASE WHEN `p`.`name` = 'amps' AND JSON_VALUE(`c`.`body`, '$.kind') = 'waveform' THEN 1
    WHEN `p`.`name` = 'volts' AND JSON_VALUE(`c`.`body`, '$.kind') = 'sweep' THEN 1 ELSE 0 END,
  1, `p`.`part`, `p`.`bytes`
FROM `capture_parts` `p` JOIN `captures` `c` ON `c`.`id` = `p`.`capture_id`;
