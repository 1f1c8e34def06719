import { type Axes, createAxis, sitingAcross, sitingDown } from './axes';
import { CUBE_NODES } from './colour-cube';
import { FilterTables } from './filter-tables';
import { evenRows, liveRows, computeReach, type Rows, turnLive } from './live-part';
import { alignUp, KernelMemory, SLACK } from './memory';
import type { KernelModule } from './module';
import {
  type PlanarPicture,
  pictureShape,
  type PixelLayout,
  type PlaneShape,
  type SampleWindow,
} from './planes';

/** Black in limited range. */
export const BLACK = [16, 128, 128] as const;
/** The module is built with this limit, in pages: 1 GiB. */
const MAX_PAGES = 16384;
/** A row combs where it stands out from both rows beside it by more than this: above the noise of compression. */
export const COMB_STEP = 10;

type Side = [width: number, height: number];

/**
 * Resamples YUV planes in WebAssembly: Lanczos-3, sub-pixel windows, edge samples clamped, chroma siting of
 * H.264's default kept (left across, centre down; ITU-T H.264 Annex E, chroma_sample_loc_type 0).
 * One instance belongs to one thread; a picture that it gives is valid until the next of its kind is asked for.
 */
export class Kernel {
  /** The cube that lies in the memory. */
  private cube: Float32Array | null = null;
  private readonly tables: FilterTables;

  private constructor(
    readonly exports: KernelModule,
    private readonly memory: KernelMemory,
  ) {
    this.tables = new FilterTables(memory);
  }

  /** @param wasm the bytes of kernel.wasm. */
  static async load(wasm: BufferSource): Promise<Kernel> {
    const memory = new WebAssembly.Memory({ initial: 16, maximum: MAX_PAGES });
    const abort = () => {
      throw new Error('the pixel kernel aborted');
    };
    const { instance } = await WebAssembly.instantiate(wasm, { env: { memory, abort } });
    const exports = instance.exports as unknown as KernelModule;
    return new Kernel(exports, new KernelMemory(memory, exports.heapBase()));
  }

  /** Bytes of the kernel's memory from an address; only valid until the next call that may grow it. */
  bytes(address: number, size: number): Uint8Array<ArrayBuffer> {
    return this.memory.at(address, size);
  }

  /**
   * Room for a source picture, to be filled by the caller (for instance by VideoFrame.copyTo) before
   * {@link scale}. The planes stand in its layout's order, without padding between rows.
   *
   * @param width luma samples, 1…16384. @param height luma rows, 1…16384.
   */
  source(layout: PixelLayout, width: number, height: number): PlanarPicture {
    return this.picture('source', layout, width, height, 1);
  }

  /**
   * Room for an I420 result; its strides are padded to 16. The same place for every frame of one size.
   *
   * @param width luma samples, even. @param height luma rows, even. @throws RangeError for odd sizes.
   */
  target(width: number, height: number): PlanarPicture {
    if (width % 2 || height % 2) throw new RangeError(`a canvas needs even sizes, not ${width}×${height}`);
    return this.picture('target', 'I420', width, height, 16);
  }

  /**
   * Fills a rectangle of a target from a window of a source picture.
   *
   * @param source from {@link source} or {@link turned}.
   * @param window in luma samples of the source; it may reach past the edges, or past the live part, whose edges then
   * repeat: no sample outside it is read, and no chroma sample that belongs in part to what lies outside.
   * @param target from {@link target}. Up to 7 samples right of the rectangle are overwritten too.
   * @param rect whole even luma samples of the target.
   * @param slot filter tables are kept under this name: pictures that take turns each have their own.
   * @throws RangeError for odd edges or an empty window.
   */
  scale(
    source: PlanarPicture,
    window: SampleWindow,
    target: PlanarPicture,
    rect: SampleWindow,
    slot = 'whole',
  ): void {
    if ([rect.x, rect.y, rect.width, rect.height].some((edge) => edge % 2)) {
      throw new RangeError('a pane needs even edges');
    }
    if (!(window.width > 0) || !(window.height > 0)) throw new RangeError('the window is empty');
    const planar = this.planar(source);
    const stepX = window.width / rect.width;
    const stepY = window.height / rect.height;
    target.planes.forEach((plane, index) => {
      const from = planar.planes[index];
      if (!from) throw new RangeError(`a ${planar.layout} picture has no plane ${index}`);
      const sub = index === 0 ? 1 : 2;
      const across = createAxis(window.x, stepX, sitingAcross(planar, from, index), { sub, offset: 0 });
      const down = createAxis(window.y, stepY, sitingDown(planar, from, index), {
        sub,
        offset: sub === 2 ? 0.5 : 0,
      });
      const to = {
        offset: plane.offset + (rect.y / sub) * plane.stride + rect.x / sub,
        stride: plane.stride,
        width: rect.width / sub,
        height: rect.height / sub,
      };
      const reach = {
        across: computeReach(
          planar.width,
          from.width,
          planar.lead?.across,
          planar.live?.x,
          planar.live?.width,
        ),
        down: computeReach(
          planar.height,
          from.height,
          planar.lead?.down,
          planar.live?.y,
          planar.live?.height,
        ),
      };
      this.scalePlane(from, to, { across, down, reach }, `${slot}-${index === 0 ? 'luma' : 'chroma'}`);
    });
  }

  /**
   * Paints what no rectangle covers along the target's edges: rows above and below, columns beside.
   * @param colour its samples of luma and of both chromas.
   */
  fillBars(
    target: PlanarPicture,
    rects: readonly SampleWindow[],
    colour: readonly [number, number, number] = BLACK,
  ): void {
    const left = Math.min(...rects.map((r) => r.x));
    const top = Math.min(...rects.map((r) => r.y));
    const right = Math.max(...rects.map((r) => r.x + r.width));
    const bottom = Math.max(...rects.map((r) => r.y + r.height));
    if (left <= 0 && top <= 0 && right >= target.width && bottom >= target.height) return;
    target.planes.forEach((plane, index) => {
      const sub = index === 0 ? 1 : 2;
      const paint = colour[index] as number;
      const bytes = this.bytes(plane.offset, plane.stride * plane.height);
      for (let y = 0; y < plane.height; y++) {
        const row = bytes.subarray(y * plane.stride, y * plane.stride + plane.width);
        if (y < top / sub || y >= bottom / sub) row.fill(paint);
        else row.fill(paint, 0, left / sub).fill(paint, right / sub);
      }
    });
  }

  /**
   * The source picture turned clockwise and then mirrored left to right, for masters that are stored so.
   * @param quarters quarter turns, 0…3.
   */
  turned(source: PlanarPicture, quarters: 0 | 1 | 2 | 3, mirrored = false): PlanarPicture {
    const planar = this.planar(source);
    const swap = quarters % 2 === 1;
    // Planes keep their own sizes: 4:2:2 that is turned has half the rows of chroma, and all its columns.
    const sizes = planar.planes.map(
      ({ width, height }) => (swap ? [height, width] : [width, height]) as Side,
    );
    const room = sizes.reduce((sum, [width, height]) => sum + width * height, 0);
    let offset = this.block('turned', room + SLACK);
    const planes = sizes.map(([width, height]): PlaneShape => {
      const plane = { offset, stride: width, width, height };
      offset += width * height;
      return plane;
    });
    planar.planes.forEach((from, i) => {
      const to = planes[i] as PlaneShape;
      this.exports.turnPlane(
        from.offset,
        from.stride,
        from.width,
        from.height,
        to.offset,
        to.stride,
        quarters,
        mirrored ? 1 : 0,
      );
    });
    const [width, height] = swap ? [planar.height, planar.width] : [planar.width, planar.height];
    const backward = { across: (quarters === 1 || quarters === 2) !== mirrored, down: quarters >= 2 };
    return {
      ...planar,
      width,
      height,
      planes,
      siting: 'turned',
      lead: {
        across: backward.across && width % 2 === 1 ? 1 : 0,
        down: backward.down && height % 2 === 1 ? 1 : 0,
      },
      live: planar.live && turnLive(planar, planar.live, quarters, mirrored),
    };
  }

  /**
   * Converts an I420 picture in place between matrices and ranges.
   * @param coefficients eight numbers from `conversion` in colour.ts.
   */
  convert(picture: PlanarPicture, coefficients: readonly number[]): void {
    const address = this.block('matrix', 32);
    new Float32Array(this.memory.buffer, address, 8).set(coefficients);
    const [y, u, v] = picture.planes as [PlaneShape, PlaneShape, PlaneShape];
    this.exports.convertColour(
      y.offset,
      y.stride,
      u.offset,
      v.offset,
      u.stride,
      picture.width,
      picture.height,
      address,
    );
  }

  /**
   * Room for packed pixels of four bytes, to be filled by the caller before {@link splitRgb}.
   * @returns its address.
   */
  packed(width: number, height: number): number {
    return this.block('packed', width * height * 4);
  }

  /**
   * Splits packed pixels into the planes of an I444 picture of the same size.
   * @param coefficients sixteen numbers from `rgbToCodes` in colour.ts. @param blueFirst the order of the bytes.
   */
  splitRgb(picture: PlanarPicture, coefficients: readonly number[], blueFirst: boolean): void {
    const table = this.block('rgb', 64);
    new Float32Array(this.memory.buffer, table, 16).set(coefficients);
    const { width, height, planes } = picture;
    const [y, u, v] = planes as [PlaneShape, PlaneShape, PlaneShape];
    const from = this.packed(width, height);
    const { offset, stride } = y;
    this.exports.rgbPlanes(
      from,
      width * 4,
      width,
      height,
      offset,
      u.offset,
      v.offset,
      stride,
      table,
      Number(blueFirst),
    );
  }

  /**
   * Maps an I420 picture in place through a cube.
   * @param cube from `colourCube` in colour-cube.ts; it is copied in once, while it stays the same.
   */
  map(picture: PlanarPicture, cube: Float32Array): void {
    const address = this.block('cube', cube.byteLength);
    if (this.cube !== cube) new Float32Array(this.memory.buffer, address, cube.length).set(cube);
    this.cube = cube;
    const [y, u, v] = picture.planes as [PlaneShape, PlaneShape, PlaneShape];
    const { width, height } = picture;
    this.exports.mapColour(
      y.offset,
      y.stride,
      u.offset,
      v.offset,
      u.stride,
      width,
      height,
      address,
      CUBE_NODES,
    );
  }

  /**
   * A picture that holds two fields, with the second field's rows drawn anew where they comb; full height. Give the
   * frames of a file in order: what did not move since the frame before stays sharp.
   * @param continues whether the frame before this one was the last that was given.
   */
  deinterlaced(source: PlanarPicture, continues: boolean): PlanarPicture {
    const planar = this.planar(source);
    const rows = planar.planes.map((plane) => evenRows(planar, plane));
    const out = planar.planes.map((plane, i) => {
      const size = plane.stride * plane.height + 2 * SLACK;
      const before = this.block(`before-${i}`, size) + SLACK;
      const fields = this.block(`fields-${i}`, size) + SLACK;
      const { offset, stride, width, height } = plane;
      const { first, count } = rows[i] as Rows;
      const skip = first * stride;
      this.exports.deinterlacePlane(
        offset + skip,
        continues ? before + skip : 0,
        fields + skip,
        stride,
        width,
        count,
        COMB_STEP,
      );
      this.bytes(before, stride * height).set(this.bytes(offset, stride * height));
      return { ...plane, offset: fields };
    });
    return { ...planar, planes: out, live: planar.live && liveRows(planar, planar.live, rows) };
  }

  /** 8-bit planar form of a source: splits NV12, narrows 10 and 12 bits; I420, I422 and I444 pass as they are. */
  planar(source: PlanarPicture): PlanarPicture {
    if (source.layout === 'NV12') {
      const out = this.picture('planar', 'I420', source.width, source.height, 1);
      const [, pairs] = source.planes as [PlaneShape, PlaneShape];
      const [y, u, v] = out.planes as [PlaneShape, PlaneShape, PlaneShape];
      // SIMD writes whole vectors, so each plane goes to its own block with slack behind it.
      const count = u.width * u.height;
      const uAt = this.block('planar-u', count + SLACK);
      const vAt = this.block('planar-v', count + SLACK);
      this.exports.splitPairs(pairs.offset, uAt, vAt, count);
      const luma = (source.planes[0] as PlaneShape).offset;
      return {
        ...out,
        live: source.live,
        planes: [
          { ...y, offset: luma },
          { ...u, offset: uAt },
          { ...v, offset: vAt },
        ],
      };
    }
    if (source.bits === 8) return source;
    const layout = source.layout.slice(0, 4) as PixelLayout;
    const out = pictureShape(layout, source.width, source.height, 1);
    const planes = out.planes.map((plane, i) => {
      const from = source.planes[i] as PlaneShape;
      const count = plane.width * plane.height;
      const address = this.block(`planar-${i}`, count + SLACK);
      this.exports.narrowSamples(from.offset, address, count, source.bits);
      return { ...plane, offset: address };
    });
    return { ...out, live: source.live, planes };
  }

  private scalePlane(from: PlaneShape, to: PlaneShape, { across, down, reach }: Axes, slot: string): void {
    const width8 = alignUp(to.width, 8);
    const h = this.tables.across(`across-${slot}`, to.width, width8, across, reach.across);
    const v = this.tables.down(`down-${slot}`, to.height, down, reach.down);
    // The pairs of rows that an output's taps need, and the two that are filtered ahead.
    const ringRows = 2 * v.pairs + 2;
    const ring = this.block('ring', ringRows * width8 * 4);
    const before = this.block('row-before', width8 * 2);
    this.exports.scalePlane(
      from.offset,
      from.stride,
      from.height,
      to.offset,
      to.stride,
      width8,
      to.height,
      h.starts,
      h.picks,
      h.weights,
      h.pairs,
      Number(h.near),
      v.starts,
      v.weights,
      v.pairs,
      ring,
      ringRows,
      before,
    );
  }

  /** Room for a picture of one's own under a name; see {@link source}. */
  picture(
    block: string,
    layout: PixelLayout,
    width: number,
    height: number,
    strideStep: number,
  ): PlanarPicture {
    const shape = pictureShape(layout, width, height, strideStep);
    const address = this.block(block, shape.size + SLACK);
    return { ...shape, address, planes: shape.planes.map((p) => ({ ...p, offset: p.offset + address })) };
  }

  /** Of the kernel's whole memory. */
  get memoryBytes(): number {
    return this.memory.bytes;
  }

  /** See {@link KernelMemory.block}. */
  block(name: string, size: number): number {
    return this.memory.block(name, size);
  }
}
