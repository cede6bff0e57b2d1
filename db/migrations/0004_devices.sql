CREATE TABLE `devices` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`may` text NOT NULL,
	`token` text NOT NULL,
	`added_at` integer NOT NULL,
	`seen_at` integer NOT NULL
);
