CREATE TABLE `job_pictures` (
	`job_id` text NOT NULL,
	`view` text NOT NULL,
	`file_name` text NOT NULL,
	`mime` text NOT NULL,
	`bytes` integer NOT NULL,
	`added_at` integer NOT NULL,
	PRIMARY KEY(`job_id`, `view`),
	FOREIGN KEY (`job_id`) REFERENCES `jobs`(`id`) ON UPDATE no action ON DELETE cascade
);
