CREATE TABLE `job_revisions` (
	`job_id` text NOT NULL,
	`revision` integer NOT NULL,
	`document` text NOT NULL,
	`saved_at` integer NOT NULL,
	`undo_to` integer,
	`redo_to` integer,
	PRIMARY KEY(`job_id`, `revision`),
	FOREIGN KEY (`job_id`) REFERENCES `jobs`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE TABLE `jobs` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`document` text NOT NULL,
	`revision` integer NOT NULL,
	`created_at` integer NOT NULL,
	`updated_at` integer NOT NULL,
	`shelved_at` integer
);
--> statement-breakpoint
CREATE INDEX `jobs_in_hand` ON `jobs` (`shelved_at`,`updated_at`);--> statement-breakpoint
CREATE TABLE `materials` (
	`id` text PRIMARY KEY NOT NULL,
	`kind` text NOT NULL,
	`name` text NOT NULL,
	`document` text NOT NULL,
	`updated_at` integer NOT NULL
);
--> statement-breakpoint
CREATE INDEX `materials_by_kind` ON `materials` (`kind`,`name`);--> statement-breakpoint
CREATE TABLE `moulds` (
	`id` text PRIMARY KEY NOT NULL,
	`job_id` text NOT NULL,
	`name` text NOT NULL,
	`made_at` integer NOT NULL,
	FOREIGN KEY (`job_id`) REFERENCES `jobs`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `moulds_by_job` ON `moulds` (`job_id`);--> statement-breakpoint
CREATE TABLE `photos` (
	`id` text PRIMARY KEY NOT NULL,
	`pour_id` text NOT NULL,
	`file_name` text NOT NULL,
	`mime` text NOT NULL,
	`bytes` integer NOT NULL,
	`added_at` integer NOT NULL,
	FOREIGN KEY (`pour_id`) REFERENCES `pours`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `photos_by_pour` ON `photos` (`pour_id`);--> statement-breakpoint
CREATE TABLE `pours` (
	`id` text PRIMARY KEY NOT NULL,
	`job_id` text NOT NULL,
	`mould_id` text,
	`kind` text NOT NULL,
	`pour_index` integer NOT NULL,
	`poured_at` integer NOT NULL,
	`ready_low_at` integer NOT NULL,
	`ready_at` integer NOT NULL,
	`ready_high_at` integer NOT NULL,
	`opened_at` integer,
	`outcome` text,
	`faults` text NOT NULL,
	`notes` text NOT NULL,
	`searched` text NOT NULL,
	`snapshot` text NOT NULL,
	FOREIGN KEY (`job_id`) REFERENCES `jobs`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`mould_id`) REFERENCES `moulds`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `pours_by_time` ON `pours` (`poured_at`);--> statement-breakpoint
CREATE INDEX `pours_curing` ON `pours` (`opened_at`,`ready_at`);--> statement-breakpoint
CREATE INDEX `pours_by_mould` ON `pours` (`mould_id`,`kind`,`outcome`);--> statement-breakpoint
CREATE INDEX `pours_by_job` ON `pours` (`job_id`,`poured_at`);--> statement-breakpoint
CREATE INDEX `pours_by_outcome` ON `pours` (`outcome`,`poured_at`);--> statement-breakpoint
CREATE TABLE `settings` (
	`key` text PRIMARY KEY NOT NULL,
	`value` text NOT NULL
);
