/**
 * A picture as planar 32-bit floats: one plane a channel, rows from the top, no padding.
 * Values are linear and without a unit of their own: reflectance 0..1 for colour, 0..1 for data maps.
 */
export class Raster {
  readonly width: number;
  readonly height: number;
  readonly planes: Float32Array[];

  /** @throws RangeError where a size is not a positive whole number or a plane has another length. */
  constructor(width: number, height: number, planes: Float32Array[]) {
    if (!Number.isInteger(width) || !Number.isInteger(height) || width < 1 || height < 1) {
      throw new RangeError(`A raster needs whole, positive sizes, not ${width} × ${height}.`);
    }
    for (const plane of planes) {
      if (plane.length !== width * height) {
        throw new RangeError(`A plane of ${plane.length} values does not fill ${width} × ${height}.`);
      }
    }
    this.width = width;
    this.height = height;
    this.planes = planes;
  }

  /** A raster of zeros (or of `value`) with `channels` planes. */
  static filled(width: number, height: number, channels: number, value = 0): Raster {
    const planes = Array.from({ length: channels }, () => {
      const plane = new Float32Array(width * height);
      return value === 0 ? plane : plane.fill(value);
    });
    return new Raster(width, height, planes);
  }

  get channels(): number {
    return this.planes.length;
  }

  /** Bytes held by the planes. */
  get bytes(): number {
    return this.width * this.height * 4 * this.planes.length;
  }

  /** A new raster with each plane passed through `change`, which must keep the plane's length. */
  mapPlanes(change: (plane: Float32Array, channel: number) => Float32Array): Raster {
    return new Raster(this.width, this.height, this.planes.map(change));
  }

  /** The rectangle from (`x`, `y`), copied to planes that `empty` gives. @throws RangeError where it reaches outside. */
  cut(
    x: number,
    y: number,
    width: number,
    height: number,
    empty: (length: number) => Float32Array = (length) => new Float32Array(length),
  ): Raster {
    if (x < 0 || y < 0 || x + width > this.width || y + height > this.height) {
      throw new RangeError(
        `The rectangle ${width} × ${height} at ${x}, ${y} is not inside ${this.width} × ${this.height}.`,
      );
    }
    const planes = this.planes.map((plane) => {
      const out = empty(width * height);
      for (let row = 0; row < height; row++) {
        const from = (y + row) * this.width + x;
        out.set(plane.subarray(from, from + width), row * width);
      }
      return out;
    });
    return new Raster(width, height, planes);
  }
}
