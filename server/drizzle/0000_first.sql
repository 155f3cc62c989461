CREATE TABLE `crate_file` (
	`id` text PRIMARY KEY NOT NULL,
	`job_id` text NOT NULL,
	`name` text NOT NULL,
	`bytes` integer NOT NULL,
	`sha256` text NOT NULL,
	FOREIGN KEY (`job_id`) REFERENCES `crate_job`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `file_by_job` ON `crate_file` (`job_id`);--> statement-breakpoint
CREATE TABLE `crate_job` (
	`id` text PRIMARY KEY NOT NULL,
	`tile_id` text NOT NULL,
	`number` integer NOT NULL,
	`revision` integer NOT NULL,
	`name` text NOT NULL,
	`state` text NOT NULL,
	`progress` real NOT NULL,
	`station` text,
	`message` text,
	`created_at` integer NOT NULL,
	`ended_at` integer,
	FOREIGN KEY (`tile_id`) REFERENCES `tile`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `crate_by_number` ON `crate_job` (`tile_id`,`number`);--> statement-breakpoint
CREATE TABLE `project` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`created_at` integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE `recipe_revision` (
	`id` text PRIMARY KEY NOT NULL,
	`tile_id` text NOT NULL,
	`number` integer NOT NULL,
	`recipe` text NOT NULL,
	`look` text,
	`created_at` integer NOT NULL,
	FOREIGN KEY (`tile_id`) REFERENCES `tile`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `revision_by_number` ON `recipe_revision` (`tile_id`,`number`);--> statement-breakpoint
CREATE TABLE `source` (
	`sha256` text PRIMARY KEY NOT NULL,
	`width` integer NOT NULL,
	`height` integer NOT NULL,
	`format` text NOT NULL,
	`bits` integer NOT NULL,
	`has_alpha` integer NOT NULL,
	`bytes` integer NOT NULL,
	`created_at` integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE `tile` (
	`id` text PRIMARY KEY NOT NULL,
	`project_id` text NOT NULL,
	`name` text NOT NULL,
	`source_sha256` text NOT NULL,
	`source_name` text NOT NULL,
	`created_at` integer NOT NULL,
	FOREIGN KEY (`project_id`) REFERENCES `project`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`source_sha256`) REFERENCES `source`(`sha256`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `tile_by_project` ON `tile` (`project_id`);