-- A step of a sheet says what its kind has, and nothing else.
SET STATEMENT group_concat_max_len = 67108864 FOR UPDATE `run_sheets` SET `steps` = (
	SELECT CONCAT('[', GROUP_CONCAT(
		CASE
			WHEN JSON_VALUE(`step`.`body`, '$.kind') IN ('rig', 'cool', 'by hand') THEN JSON_REMOVE(`step`.`body`, '$.mains', '$.outputs', '$.order', '$.port', '$.load', '$.capture', '$.station', '$.attached', '$.settle', '$.deviceId')
			WHEN JSON_VALUE(`step`.`body`, '$.kind') IN ('idle') THEN JSON_REMOVE(`step`.`body`, '$.outputs', '$.order', '$.port', '$.load', '$.capture', '$.station', '$.settle', '$.deviceId')
			WHEN JSON_VALUE(`step`.`body`, '$.kind') IN ('read-out') THEN JSON_REMOVE(`step`.`body`, '$.mains', '$.outputs', '$.order', '$.load', '$.capture', '$.station', '$.attached', '$.settle', '$.deviceId')
			WHEN JSON_VALUE(`step`.`body`, '$.kind') IN ('point') THEN JSON_REMOVE(`step`.`body`, '$.order', '$.port', '$.capture', '$.attached', '$.deviceId')
			WHEN JSON_VALUE(`step`.`body`, '$.kind') IN ('split') THEN JSON_REMOVE(`step`.`body`, '$.outputs', '$.port', '$.load', '$.capture', '$.station', '$.attached', '$.settle', '$.deviceId')
			WHEN JSON_VALUE(`step`.`body`, '$.kind') IN ('warm-up', 'hold') THEN JSON_REMOVE(`step`.`body`, '$.order', '$.port', '$.capture', '$.station', '$.attached', '$.settle', '$.deviceId')
			WHEN JSON_VALUE(`step`.`body`, '$.kind') IN ('capture') THEN JSON_REMOVE(`step`.`body`, '$.order', '$.station', '$.attached', '$.settle', '$.deviceId')
			WHEN JSON_VALUE(`step`.`body`, '$.kind') IN ('device') THEN JSON_REMOVE(`step`.`body`, '$.outputs', '$.order', '$.load', '$.capture', '$.station', '$.attached', '$.settle')
			ELSE `step`.`body`
		END
		ORDER BY `step`.`place` SEPARATOR ','
	), ']')
	FROM JSON_TABLE(`run_sheets`.`steps`, '$[*]' COLUMNS (`place` FOR ORDINALITY, `body` JSON PATH '$')) AS `step`
) WHERE JSON_LENGTH(`steps`) > 0;--> statement-breakpoint
SET STATEMENT group_concat_max_len = 67108864 FOR UPDATE `sheet_runs` SET `steps` = (
	SELECT CONCAT('[', GROUP_CONCAT(
		CASE
			WHEN JSON_VALUE(`step`.`body`, '$.kind') IN ('rig', 'cool', 'by hand') THEN JSON_REMOVE(`step`.`body`, '$.mains', '$.outputs', '$.order', '$.port', '$.load', '$.capture', '$.station', '$.attached', '$.settle', '$.deviceId')
			WHEN JSON_VALUE(`step`.`body`, '$.kind') IN ('idle') THEN JSON_REMOVE(`step`.`body`, '$.outputs', '$.order', '$.port', '$.load', '$.capture', '$.station', '$.settle', '$.deviceId')
			WHEN JSON_VALUE(`step`.`body`, '$.kind') IN ('read-out') THEN JSON_REMOVE(`step`.`body`, '$.mains', '$.outputs', '$.order', '$.load', '$.capture', '$.station', '$.attached', '$.settle', '$.deviceId')
			WHEN JSON_VALUE(`step`.`body`, '$.kind') IN ('point') THEN JSON_REMOVE(`step`.`body`, '$.order', '$.port', '$.capture', '$.attached', '$.deviceId')
			WHEN JSON_VALUE(`step`.`body`, '$.kind') IN ('split') THEN JSON_REMOVE(`step`.`body`, '$.outputs', '$.port', '$.load', '$.capture', '$.station', '$.attached', '$.settle', '$.deviceId')
			WHEN JSON_VALUE(`step`.`body`, '$.kind') IN ('warm-up', 'hold') THEN JSON_REMOVE(`step`.`body`, '$.order', '$.port', '$.capture', '$.station', '$.attached', '$.settle', '$.deviceId')
			WHEN JSON_VALUE(`step`.`body`, '$.kind') IN ('capture') THEN JSON_REMOVE(`step`.`body`, '$.order', '$.station', '$.attached', '$.settle', '$.deviceId')
			WHEN JSON_VALUE(`step`.`body`, '$.kind') IN ('device') THEN JSON_REMOVE(`step`.`body`, '$.outputs', '$.order', '$.load', '$.capture', '$.station', '$.attached', '$.settle')
			ELSE `step`.`body`
		END
		ORDER BY `step`.`place` SEPARATOR ','
	), ']')
	FROM JSON_TABLE(`sheet_runs`.`steps`, '$[*]' COLUMNS (`place` FOR ORDINALITY, `body` JSON PATH '$')) AS `step`
) WHERE JSON_LENGTH(`steps`) > 0;
