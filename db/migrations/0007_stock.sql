CREATE TABLE `lots` (
	`id` text PRIMARY KEY NOT NULL,
	`material_id` text NOT NULL,
	`document` text NOT NULL,
	`ended_at` integer,
	`updated_at` integer NOT NULL
);
--> statement-breakpoint
CREATE INDEX `lots_here` ON `lots` (`ended_at`,`material_id`);--> statement-breakpoint
CREATE TABLE `orders` (
	`id` text PRIMARY KEY NOT NULL,
	`document` text NOT NULL,
	`revision` integer NOT NULL,
	`updated_at` integer NOT NULL,
	`done_at` integer
);
--> statement-breakpoint
CREATE INDEX `orders_in_hand` ON `orders` (`done_at`,`updated_at`);--> statement-breakpoint
CREATE TABLE `packs` (
	`id` text PRIMARY KEY NOT NULL,
	`material_id` text NOT NULL,
	`document` text NOT NULL,
	`updated_at` integer NOT NULL
);
--> statement-breakpoint
CREATE INDEX `packs_by_material` ON `packs` (`material_id`);--> statement-breakpoint
CREATE TABLE `projects` (
	`id` text PRIMARY KEY NOT NULL,
	`document` text NOT NULL,
	`revision` integer NOT NULL,
	`updated_at` integer NOT NULL,
	`done_at` integer
);
--> statement-breakpoint
CREATE INDEX `projects_in_hand` ON `projects` (`done_at`,`updated_at`);--> statement-breakpoint
CREATE TABLE `stock_moves` (
	`id` text PRIMARY KEY NOT NULL,
	`lot_id` text NOT NULL,
	`part` integer NOT NULL,
	`at` integer NOT NULL,
	`kind` text NOT NULL,
	`g` real NOT NULL,
	`job_id` text,
	`pour_id` text,
	FOREIGN KEY (`lot_id`) REFERENCES `lots`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `stock_moves_by_lot` ON `stock_moves` (`lot_id`,`at`);--> statement-breakpoint
CREATE INDEX `stock_moves_by_pour` ON `stock_moves` (`pour_id`);