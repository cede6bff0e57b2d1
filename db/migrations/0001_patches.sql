CREATE TABLE `patches` (
	`id` text PRIMARY KEY NOT NULL,
	`pair` text NOT NULL,
	`contact` text NOT NULL,
	`between` text NOT NULL,
	`shop_c` real NOT NULL,
	`started_at` integer NOT NULL,
	`ready_at` integer NOT NULL,
	`ended_at` integer,
	`outcome` text,
	`notes` text NOT NULL,
	`photo_file` text
);
--> statement-breakpoint
CREATE INDEX `patches_by_pair` ON `patches` (`pair`,`ended_at`);--> statement-breakpoint
CREATE INDEX `patches_running` ON `patches` (`ended_at`,`ready_at`);