ALTER TABLE `jobs` RENAME COLUMN `shelved_at` TO `put_away_at`;--> statement-breakpoint
ALTER TABLE `pours` RENAME COLUMN `decisions` TO `dossier`;--> statement-breakpoint
ALTER TABLE `plans` RENAME TO `calendars`;
