CREATE TABLE `events` (
	`id` text PRIMARY KEY NOT NULL,
	`job_id` text NOT NULL,
	`mould_id` text,
	`pour_id` text,
	`at` integer NOT NULL,
	`what` text NOT NULL,
	FOREIGN KEY (`job_id`) REFERENCES `jobs`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`mould_id`) REFERENCES `moulds`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`pour_id`) REFERENCES `pours`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `events_by_mould` ON `events` (`mould_id`,`at`);--> statement-breakpoint
CREATE INDEX `events_by_pour` ON `events` (`pour_id`,`at`);--> statement-breakpoint
ALTER TABLE `pours` ADD `each` text;