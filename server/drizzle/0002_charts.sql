CREATE TABLE `chart` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`lines` text NOT NULL,
	`created_at` integer NOT NULL,
	`deleted_at` integer
);
