CREATE TABLE `guide` (
	`id` text PRIMARY KEY NOT NULL,
	`tile_id` text NOT NULL,
	`source_sha256` text NOT NULL,
	`name` text NOT NULL,
	`created_at` integer NOT NULL,
	FOREIGN KEY (`tile_id`) REFERENCES `tile`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`source_sha256`) REFERENCES `source`(`sha256`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `guide_by_tile` ON `guide` (`tile_id`);--> statement-breakpoint
CREATE TABLE `palette` (
	`id` text PRIMARY KEY NOT NULL,
	`project_id` text NOT NULL,
	`name` text NOT NULL,
	`colours` text NOT NULL,
	`created_at` integer NOT NULL,
	`deleted_at` integer,
	FOREIGN KEY (`project_id`) REFERENCES `project`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `palette_by_project` ON `palette` (`project_id`);--> statement-breakpoint
CREATE TABLE `saved_recipe` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`stations` text NOT NULL,
	`created_at` integer NOT NULL,
	`deleted_at` integer
);
--> statement-breakpoint
CREATE TABLE `tag` (
	`tile_id` text NOT NULL,
	`name` text NOT NULL,
	PRIMARY KEY(`tile_id`, `name`),
	FOREIGN KEY (`tile_id`) REFERENCES `tile`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
ALTER TABLE `project` ADD `deleted_at` integer;--> statement-breakpoint
ALTER TABLE `tile` ADD `deleted_at` integer;