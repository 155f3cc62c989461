CREATE TABLE `stroke_sheet` (
	`hash` text PRIMARY KEY NOT NULL,
	`strokes` text NOT NULL
);
