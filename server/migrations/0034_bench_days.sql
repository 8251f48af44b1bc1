CREATE TABLE `bench_days` (
	`day` varchar(10) NOT NULL,
	`body` json NOT NULL,
	`version` int NOT NULL,
	`updated_at` datetime(3) NOT NULL,
	CONSTRAINT `bench_days_day` PRIMARY KEY(`day`)
);
