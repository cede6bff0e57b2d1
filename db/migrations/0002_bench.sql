CREATE TABLE `clocks` (
	`id` text PRIMARY KEY NOT NULL,
	`job_id` text,
	`pour_id` text,
	`started_at` integer NOT NULL,
	`ended_at` integer,
	`document` text NOT NULL
);
--> statement-breakpoint
CREATE INDEX `clocks_running` ON `clocks` (`ended_at`,`started_at`);--> statement-breakpoint
CREATE INDEX `clocks_by_pour` ON `clocks` (`pour_id`);--> statement-breakpoint
CREATE TABLE `plans` (
	`id` text PRIMARY KEY NOT NULL,
	`document` text NOT NULL,
	`revision` integer NOT NULL,
	`updated_at` integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE `readings` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`at` integer NOT NULL,
	`c` real NOT NULL,
	`source` text NOT NULL
);
--> statement-breakpoint
CREATE INDEX `readings_by_time` ON `readings` (`at`);--> statement-breakpoint
CREATE TABLE `weigh_ins` (
	`id` text PRIMARY KEY NOT NULL,
	`job_id` text NOT NULL,
	`kind` text NOT NULL,
	`pour_index` integer NOT NULL,
	`mould_id` text,
	`document` text NOT NULL,
	`frozen` text NOT NULL,
	`revision` integer NOT NULL,
	`started_at` integer NOT NULL,
	`updated_at` integer NOT NULL,
	`ended_at` integer,
	`pour_id` text,
	FOREIGN KEY (`job_id`) REFERENCES `jobs`(`id`) ON UPDATE no action ON DELETE cascade,
	FOREIGN KEY (`mould_id`) REFERENCES `moulds`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`pour_id`) REFERENCES `pours`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `weigh_ins_open` ON `weigh_ins` (`ended_at`,`updated_at`);--> statement-breakpoint
CREATE INDEX `weigh_ins_by_job` ON `weigh_ins` (`job_id`,`ended_at`);--> statement-breakpoint
ALTER TABLE `moulds` ADD `place` text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `moulds` ADD `note` text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `moulds` ADD `expected` text;--> statement-breakpoint
ALTER TABLE `moulds` ADD `retired_at` integer;--> statement-breakpoint
CREATE INDEX `moulds_in_use` ON `moulds` (`retired_at`,`made_at`);--> statement-breakpoint
ALTER TABLE `pours` ADD `marks` text DEFAULT '[]' NOT NULL;--> statement-breakpoint
ALTER TABLE `pours` ADD `changed` text;--> statement-breakpoint
ALTER TABLE `pours` ADD `decisions` text;