CREATE TABLE `rig` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`lights` text NOT NULL,
	`created_at` integer NOT NULL,
	`deleted_at` integer
);
--> statement-breakpoint
CREATE TABLE `surroundings` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`sha256` text NOT NULL,
	`format` text NOT NULL,
	`created_at` integer NOT NULL,
	`deleted_at` integer
);
