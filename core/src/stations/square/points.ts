/** A place, as shares of a picture's sides. */
export type Point = [number, number];

/** Upper left, upper right, lower right, lower left. */
export type Corners = [Point, Point, Point, Point];
