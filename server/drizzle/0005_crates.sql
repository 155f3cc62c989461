CREATE TABLE `profile` (
	`id` text PRIMARY KEY NOT NULL,
	`project_id` text NOT NULL,
	`name` text NOT NULL,
	`profile` text NOT NULL,
	`created_at` integer NOT NULL,
	`deleted_at` integer,
	FOREIGN KEY (`project_id`) REFERENCES `project`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `profile_by_project` ON `profile` (`project_id`);--> statement-breakpoint
ALTER TABLE `crate_job` ADD `profile` text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `crate_job` ADD `place` integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `crate_job` ADD `attempts` integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `crate_job` ADD `folder` text;--> statement-breakpoint
ALTER TABLE `crate_job` ADD `verdict` text;--> statement-breakpoint
ALTER TABLE `crate_job` ADD `deleted_at` integer;--> statement-breakpoint
ALTER TABLE `tile` ADD `watched` text;