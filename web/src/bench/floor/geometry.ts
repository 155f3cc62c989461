/** How the Floor is seen: CSS pixels a tile edge takes, and where the first tile's corner lies. */
export interface Look {
  edge: number;
  x: number;
  y: number;
}

export interface Size {
  width: number;
  height: number;
}

const MARGIN = 14;

/** The look at which `lay` × `lay` tiles of this shape fill the stage, centred. */
export function fitLook(stage: Size, tile: Size, lay: number): Look {
  const aspect = tile.height / tile.width;
  const room = Math.max(40, Math.min(stage.width - 2 * MARGIN, (stage.height - 2 * MARGIN) / aspect));
  const edge = room / lay;
  return { edge, x: (stage.width - edge * lay) / 2, y: (stage.height - edge * aspect * lay) / 2 };
}

/** The look zoomed by `factor` about a point of the stage, within limits of pixels per tile pixel. */
export function zoomAt(look: Look, tile: Size, factor: number, x: number, y: number): Look {
  const edge = Math.min(tile.width * 32, Math.max(24, look.edge * factor));
  const real = edge / look.edge;
  return { edge, x: x - (x - look.x) * real, y: y - (y - look.y) * real };
}

/** The look at which one tile pixel is one device pixel, about the middle of the stage. */
export function pixelLook(look: Look, stage: Size, tile: Size, devicePixels: number): Look {
  return zoomAt(look, tile, tile.width / devicePixels / look.edge, stage.width / 2, stage.height / 2);
}

/** The tile pixel under a point of the stage, or null outside the laid area. */
export function pixelAt(
  look: Look,
  tile: Size,
  lay: number,
  halfShift: boolean,
  x: number,
  y: number,
): { x: number; y: number } | null {
  const scale = tile.width / look.edge;
  const u = (x - look.x) * scale;
  const v = (y - look.y) * scale;
  if (u < 0 || v < 0 || u >= tile.width * lay || v >= tile.height * lay) return null;
  const shift = halfShift ? 0.5 : 0;
  return {
    x: Math.floor(u + shift * tile.width) % tile.width,
    y: Math.floor(v + shift * tile.height) % tile.height,
  };
}
